import { Inbox } from '../inbox';
import { counted, table } from '../page';
import type { PartnerProgram } from '../server';
import type { Mood } from '../troubles';
import { bounds, judge } from './machines';

const SHOWN = 30;

/** The fabricator desk: it takes releases, looks whether its machines can make every piece, and says when. */
export function fabricatorDesk(ledger: string | null, mood: Mood, slow?: number): PartnerProgram {
	const inbox = new Inbox(ledger, judge);
	return {
		name: 'Fabricator desk',
		inbox,
		mood,
		...(slow !== undefined && { slow }),
		body() {
			const orders = new Map<string, { accepted: number; refused: number; days: number }>();
			const refusals: (readonly [string, string, string])[] = [];
			for (const { batch, answer } of inbox.all) {
				const name = `${batch.project.name} · release ${batch.release}`;
				const order = orders.get(name) ?? { accepted: 0, refused: 0, days: 0 };
				orders.set(name, order);
				answer.pieces.forEach(({ is, reason, lead_days }, k) => {
					order[is]++;
					order.days = Math.max(order.days, lead_days ?? 0);
					if (is === 'refused') refusals.push([name, batch.pieces[k]!.mark, reason]);
				});
			}
			const rows = [...orders].map(
				([name, { accepted, refused, days }]) =>
					[name, counted(accepted), counted(refused), days || '–'] as const
			);
			return `<p>${counted(inbox.all.length)} messages, ${counted(inbox.pieces)} pieces.</p>
<h2>What came in</h2>${rows.length ? table([['From', 'Accepted', 'Refused', 'Working days'], ...rows]) : '<p>Nothing yet.</p>'}
${refusals.length ? `<h2>Refused last</h2>${table([['From', 'Mark', 'Why'], ...refusals.slice(-SHOWN).reverse()])}` : ''}
<h2>What the machines take</h2>${table([
				['', 'Bound'],
				...bounds.map(({ label, most, least, unit }) => [
					label,
					most === undefined ? `at least ${least}${unit}` : `at most ${counted(most)} ${unit}`
				])
			])}`;
		}
	};
}
