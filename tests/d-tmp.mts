import fs from 'fs';
import { Chain } from '/work/main/src/core/chain/chain.ts';
import { readProjectText } from '/work/main/src/core/project/read.ts';
import { bookOf } from '/work/main/src/core/drawing/book.ts';
import { writeSvg } from '/work/main/src/core/exchange/svg/write.ts';
const demo = await new Chain().run(readProjectText(fs.readFileSync('/work/main/tests/lido.json','utf8')));
const t=performance.now(); const book=bookOf(demo,{paper:'A3',date:'2026-11-29'}); console.log('plan',(performance.now()-t).toFixed(0),book.length, book.filter(b=>b.group!=='pieces').map(b=>b.number+' '+b.title+' '+b.count).join('\n'));
for(const n of process.argv.slice(2)){ const a=performance.now(); const [p]=book.find(b=>b.number===n)!.draw(); const s=writeSvg(p!); console.log(n,(performance.now()-a).toFixed(0),s.length); fs.writeFileSync(`/tmp/look/${n}.svg`,s); }
