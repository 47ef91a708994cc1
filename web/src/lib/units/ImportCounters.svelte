<script lang="ts">
	import { api, ask, type Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';

	let { onDone }: { onDone: () => void } = $props();
	let problem = $state.raw<Problem | null>(null);
	let outcome = $state('');

	async function bring(event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		const input = event.currentTarget;
		if (!file) return;
		outcome = '';
		const answer = await ask(api.POST('/api/counters/import', { body: { text: await file.text() } }));
		input.value = '';
		problem = answer.problem;
		if (!answer.data) return;
		const { rows, new: fresh, units } = answer.data;
		outcome = `${rows} rows read for ${units} units; ${fresh} readings are new.`;
		onDone();
	}
</script>

<p>
	A file with the columns <code>unit;counter;value;date</code>: the unit by its serial or label, the counter
	as its sheet names it (h, swings …). All lines are imported, or none, with every faulty line listed.
</p>
<label class="mt-1 block font-semibold" for="counters-file">Counter readings as CSV</label>
<input id="counters-file" class="file-input min-h-12" type="file" accept=".csv,text/csv" onchange={bring} />
{#if outcome}<p class="text-success font-semibold" role="status">{outcome}</p>{/if}
<ProblemNote {problem} />
