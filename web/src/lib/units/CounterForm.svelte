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
	{#each counters as counter (counter.counter)}
		<form
			class="flex flex-wrap items-end gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				void read(counter.counter, typed[counter.counter]?.trim() || null);
			}}
		>
			<div class="min-w-40 flex-1">
				<label class="block font-semibold" for="{id}-{counter.counter}">Counter [{counter.counter}]</label>
				<p class="faint text-sm">
					{counter.value === null
						? 'no reading yet'
						: `was ${counter.value.toLocaleString('en-GB')} ${counter.counter} on ${day(counter.at ?? '')}`}{counter.a_day
						? `; about ${counter.a_day.toLocaleString('en-GB')} a day`
						: ''}
				</p>
				<input
					id="{id}-{counter.counter}"
					class={['entry input w-full', fault && at === counter.counter && 'input-error']}
					inputmode="decimal"
					autocomplete="off"
					maxlength="20"
					bind:value={typed[counter.counter]}
				/>
			</div>
			{#if fault && at === counter.counter && counter.value !== null}
				<LowerReason bind:value={lower} />
			{/if}
			<button class="btn min-h-12">Enter reading</button>
		</form>
		{#if fault && at === counter.counter}<p class="text-error" role="alert">{fault}</p>{/if}
	{/each}
	{#each conditions as condition (condition.condition)}
		<button class="btn h-auto min-h-12 py-1 text-left" onclick={() => void read(condition.condition, null)}
			>Seen: {condition.says}</button
		>
	{/each}
	{#if !fault}<ProblemNote {problem} />{/if}
</div>
