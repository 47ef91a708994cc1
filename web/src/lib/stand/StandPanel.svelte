<script lang="ts">
	import { untrack } from 'svelte';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Choice, faultAt, plain, ProblemNote } from '$lib/shared';

	interface Props {
		panel: Schemas['PanelOut'];
	}
	let { panel }: Props = $props();

	let rig = $state(untrack(() => panel.rig) as Schemas['PanelBody']['rig']);
	let fault = $state(untrack(() => panel.fault) as Schemas['PanelBody']['fault']);
	let texts = $state<Record<string, string>>(untrack(() => written(panel.settings)));
	let problem = $state.raw<Problem | null>(null);
	let done = $state('');
	const on = $derived(panel.rigs.find((listed) => listed.key === rig));

	function written(settings: Record<string, number>) {
		return Object.fromEntries(Object.entries(settings).map(([key, value]) => [key, plain(value)]));
	}
	function text(dial: Schemas['DialStandOut']) {
		return texts[dial.key] ?? plain(dial.first);
	}
	async function set() {
		const settings = Object.fromEntries(
			(on?.dials ?? []).map((dial) => [
				dial.key,
				Number(text(dial).trim().replace(',', '.').replace('−', '-'))
			])
		);
		const answer = await ask(api.POST('/api/stand/panel', { body: { rig, settings, fault } }));
		problem = answer.problem;
		done = answer.data ? 'Applied.' : '';
		if (answer.data) texts = written(answer.data.settings);
	}
</script>

<section class="panel space-y-3" aria-label="Panel of the simulated stand">
	<h2 class="text-xl font-bold">Unit and faults of the simulated stand</h2>
	<form
		class="space-y-3"
		oninput={() => (done = '')}
		onsubmit={(event) => {
			event.preventDefault();
			void set();
		}}
	>
		<Choice
			name="On the stand"
			options={panel.rigs.map((listed) => [listed.key as typeof rig, listed.says] as const)}
			bind:value={rig}
		/>
		<div class="flex flex-wrap items-end gap-3">
			{#each on?.dials ?? [] as dial (`${rig}.${dial.key}`)}
				<label class="min-w-44 flex-1"
					><span class="mb-1 block font-semibold">{dial.says}, {dial.unit}</span>
					<input
						class="entry input w-full"
						inputmode="decimal"
						data-entry
						value={text(dial)}
						oninput={(event) => (texts = { ...texts, [dial.key]: event.currentTarget.value })}
					/>
					{#if faultAt(problem, `settings.${dial.key}`)}
						<span class="text-error text-sm" role="alert">{faultAt(problem, `settings.${dial.key}`)}</span>
					{/if}
				</label>
			{/each}
		</div>
		<Choice
			name="The stand itself"
			options={panel.faults.map((listed) => [listed.key as typeof fault, listed.says] as const)}
			bind:value={fault}
		/>
		<button class="btn btn-primary min-h-14 w-full">Apply</button>
		<p role="status">{done}</p>
		{#if !(on?.dials ?? []).some((dial) => faultAt(problem, `settings.${dial.key}`))}<ProblemNote
				{problem}
			/>{/if}
	</form>
</section>
