import {
	MOST_NEWS,
	newsSchema,
	progressSteps,
	type BatchPiece,
	type News
} from '$core/partner/message-schema';
import { Inbox, type Judge, type Taken } from '../inbox';
import { Ledger } from '../ledger';
import { counted, table } from '../page';
import type { PartnerProgram } from '../server';
import type { Mood } from '../troubles';

/** Something that has become of a piece. */
type Step = News['pieces'][number];
interface DiaryLine extends Step {
	readonly project: string;
	readonly release: number;
}

/** A piece can be set where somebody can say where. */
const judge: Judge = ({ anchors }) =>
	anchors.length
		? { is: 'accepted', reason: '', lead_days: null }
		: { is: 'refused', reason: 'it has no points to be placed by', lead_days: null };

const lowest = ({ anchors }: BatchPiece) => Math.min(...anchors.map(([, , z]) => z));
const nameOf = ({ batch }: Taken) => `${batch.project.id} ${batch.release}`;
/** So many parts of a release are made before the first is delivered, and delivered before the first is set. */
const PARTS = 8;

/** The pieces of one release on the site: built from below, made first, then delivered, then set. */
class Works {
	readonly pieces: BatchPiece[] = [];
	/** How many have come as far as each step. */
	readonly done = progressSteps.map(() => 0);

	constructor(
		readonly project: string,
		readonly name: string,
		readonly release: number
	) {}

	/** Take each step with so many pieces more. @returns what becomes of them */
	goOn(pace: number, at: string): DiaryLine[] {
		const lines: DiaryLine[] = [];
		const gap = Math.ceil(this.pieces.length / PARTS);
		progressSteps.forEach((is, step) => {
			const ahead = step ? this.done[step - 1]! : this.pieces.length;
			// What comes last has nothing to wait for.
			const free = !step || ahead === this.pieces.length ? ahead : ahead - gap;
			const to = Math.min(free, this.done[step]! + pace);
			for (const { list, address } of this.pieces.slice(this.done[step], Math.max(to, 0)))
				lines.push({ project: this.project, release: this.release, list, address, is, at });
			this.done[step] = Math.max(this.done[step]!, to);
		});
		return lines;
	}
}

export interface Site extends PartnerProgram {
	/** Work goes on by so many pieces. */
	work(pieces: number): void;
}

/** The site receiver: it acknowledges pieces one by one, and keeps a diary of what has become of them. */
export function siteReceiver(folder: string | null, mood: Mood, slow?: number): Site {
	const inbox = new Inbox(folder && `${folder}/messages.jsonl`, judge);
	const diary = new Ledger<DiaryLine>(folder && `${folder}/diary.jsonl`);
	const works = new Map<string, Works>();
	let read = 0;
	/** Pieces that came in since: those that nothing has become of yet are put in the order they are built in. */
	function takeIn(): void {
		const fresh = new Set<Works>();
		for (const taken of inbox.all.slice(read)) {
			const { project, release, pieces } = taken.batch;
			const name = nameOf(taken);
			const own = works.get(name) ?? new Works(project.id, project.name, release);
			works.set(name, own);
			fresh.add(own);
			pieces.forEach((piece, k) => {
				if (taken.answer.pieces[k]!.is === 'accepted') own.pieces.push(piece);
			});
		}
		read = inbox.all.length;
		for (const own of fresh) {
			const begun = own.pieces.splice(0, own.done[0]);
			own.pieces.sort((a, b) => lowest(a) - lowest(b));
			own.pieces.unshift(...begun);
		}
	}
	/** After a start: the diary says how far things had come, and in which order. */
	function resume(): void {
		const begun = new Map<string, Map<string, number>>();
		for (const { project, release, list, address, is } of diary.entries) {
			const name = `${project} ${release}`;
			const own = works.get(name);
			if (!own) continue;
			own.done[progressSteps.indexOf(is)]!++;
			const order = begun.get(name) ?? new Map<string, number>();
			begun.set(name, order);
			if (is === 'made') order.set(`${list} ${address}`, order.size);
		}
		for (const [name, order] of begun) {
			const place = ({ list, address }: BatchPiece) => order.get(`${list} ${address}`) ?? order.size;
			works.get(name)!.pieces.sort((a, b) => place(a) - place(b));
		}
	}
	takeIn();
	resume();
	const work = (pieces: number) => {
		takeIn();
		const at = new Date().toISOString();
		const lines = [...works.values()].flatMap((own) => own.goOn(pieces, at));
		if (lines.length) diary.add(...lines);
	};
	return {
		name: 'Site receiver',
		inbox,
		mood,
		...(slow !== undefined && { slow }),
		work,
		read(url) {
			if (url.pathname !== '/news') return null;
			const [project, release] = [url.searchParams.get('project'), Number(url.searchParams.get('release'))];
			const from = Math.max(0, Math.trunc(Number(url.searchParams.get('from')) || 0));
			const own = diary.entries.filter((one) => one.project === project && one.release === release);
			const pieces = own
				.slice(from, from + MOST_NEWS)
				.map(({ list, address, is, at }) => ({ list, address, is, at }));
			const next = Math.min(own.length, from + pieces.length);
			return newsSchema.parse({ format: 'zygaster news', version: 1, next, pieces });
		},
		press: (form) => work(Math.min(10_000, Math.max(0, Math.trunc(Number(form.get('pieces')) || 0)))),
		body() {
			takeIn();
			const rows = [...works.values()].map(({ name, release, pieces, done }) => [
				`${name} · release ${release}`,
				counted(pieces.length),
				...done.map(counted)
			]);
			return `<p>${counted(inbox.all.length)} messages, ${counted(inbox.pieces)} pieces.</p>
<h2>How far it is</h2>${rows.length ? table([['From', 'Pieces', 'Made', 'Delivered', 'Set'], ...rows]) : '<p>Nothing yet.</p>'}
<form method="post" action="/"><input type="hidden" name="pieces" value="200"><button>Work on by 200 pieces</button></form>`;
		}
	};
}
