<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { day, faultAt, newId, ProblemNote } from '$lib/shared';
	import LowerReason from './LowerReason.svelte';

	interface Props {
		label: string;
		counters: Schemas['CounterOut'][];
		conditions: Schemas['ConditionOut'][];
		onRead: (view: Schemas['UnitView']) => void;
		/** What was typed and not entered yet, by counter. */
		typed?: Record<string, string>;
	}
	let { label, counters, conditions, onRead, typed = $bindable({}) }: Props = $props();

	const id = $props.id();
	let lower = $state<'' | 'new_counter' | 'mistake'>('');
	let problem = $state.raw<Problem | null>(null);
	let at = $state('');
	const fault = $derived(faultAt(problem, 'value'));

	async function read(counter: string, value: string | null) {
		const answer = await ask(
			api.POST('/api/units/{label}/counters', {
				params: { path: { label } },
				body: { id: newId(), counter, value, lower: value === null ? null : lower || null, note: '' }
			})
		);
		problem = answer.problem;
		at = counter;
		if (!answer.data) return;
		typed[counter] = '';
		lower = '';
		onRead(answer.data);
	}
</script>

<div class="space-y-3">
	{#each counters as one (one.counter)}
		<form
			class="flex flex-wrap items-end gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				void read(one.counter, typed[one.counter]?.trim() || null);
			}}
		>
			<div class="min-w-40 flex-1">
				<label class="block font-semibold" for="{id}-{one.counter}">Counter [{one.counter}]</label>
				<p class="faint text-sm">
					{one.value === null
						? 'no reading yet'
						: `was ${one.value.toLocaleString('en-GB')} ${one.counter} on ${day(one.at ?? '')}`}{one.a_day
						? `; about ${one.a_day.toLocaleString('en-GB')} a day`
						: ''}
				</p>
				<input
					id="{id}-{one.counter}"
					class={['entry input w-full', fault && at === one.counter && 'input-error']}
					inputmode="decimal"
					autocomplete="off"
					maxlength="20"
					bind:value={typed[one.counter]}
				/>
			</div>
			{#if fault && at === one.counter && one.value !== null}
				<LowerReason bind:value={lower} />
			{/if}
			<button class="btn min-h-12">Enter reading</button>
		</form>
		{#if fault && at === one.counter}<p class="text-error" role="alert">{fault}</p>{/if}
	{/each}
	{#each conditions as one (one.condition)}
		<button class="btn h-auto min-h-12 py-1 text-left" onclick={() => void read(one.condition, null)}
			>Seen: {one.says}</button
		>
	{/each}
	{#if !fault}<ProblemNote {problem} />{/if}
</div>
