import { main } from './main';

process.exitCode = await main(process.argv.slice(2), {
	print: (line) => console.log(line),
	complain: (line) => console.error(line)
});
