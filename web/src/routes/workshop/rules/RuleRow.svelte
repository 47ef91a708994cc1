<script lang="ts">
	import type { Problem, Schemas } from '$lib/api';
	import { faultAt, plain } from '$lib/shared';

	type Rule = Schemas['ShopSettingOut'];
	interface Props {
		rule: Rule;
		mayChange: boolean;
		onSet: (rule: Rule, value: number) => Promise<Problem | null>;
		onReset: (rule: Rule) => Promise<Problem | null>;
	}
	let { rule, mayChange, onSet, onReset }: Props = $props();

	const id = $props.id();
	let typed = $state<string | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const fault = $derived(faultAt(problem, 'value') ?? problem?.detail ?? null);

	const word = (value: number) => rule.choices[value] ?? plain(value);

	async function save(event: SubmitEvent) {
		event.preventDefault();
		const value = Number((typed ?? '').replace(',', '.'));
		if (typed === null || typed.trim() === '' || Number.isNaN(value)) {
			problem = {
				type: '',
				title: '',
				status: 422,
				detail: `“${typed ?? ''}” is not a number; ${rule.low} to ${rule.high} ${rule.unit} fits`,
				errors: []
			};
			return;
		}
		problem = await onSet(rule, value);
		if (!problem) typed = null;
	}
	async function reset() {
		problem = await onReset(rule);
		if (!problem) typed = null;
	}
</script>

<form class="border-t border-base-300 py-2" onsubmit={save}>
	<div class="grid grid-cols-[1fr_auto] items-center gap-x-2 gap-y-1 sm:grid-cols-[1fr_auto_auto_8.5rem]">
		<label class="font-semibold max-sm:col-span-2" for={id}>{rule.name}</label>
		{#if rule.choices.length}
			<select
				{id}
				class="entry select w-36 truncate"
				disabled={!mayChange}
				aria-describedby="{id}-help"
				value={typed ?? String(rule.value)}
				onchange={(event) => (typed = event.currentTarget.value)}
			>
				{#each rule.choices as choice, place (choice)}<option value={String(place)}>{choice}</option>{/each}
			</select>
		{:else}
			<span class="join">
				<input
					{id}
					class={['entry input join-item w-20 text-right', fault && 'input-error']}
					inputmode="decimal"
					autocomplete="off"
					disabled={!mayChange}
					aria-describedby="{id}-help"
					aria-invalid={fault ? 'true' : undefined}
					value={typed ?? String(rule.value)}
					oninput={(event) => {
						typed = event.currentTarget.value;
						problem = null;
					}}
				/>
				<span class="join-item flex w-16 items-center border border-base-300 bg-base-300 px-2"
					>{rule.unit}</span
				>
			</span>
		{/if}
		<button class="btn btn-primary" disabled={typed === null || !mayChange}>Set</button>
		{#if rule.who === null}
			<span class="faint text-center">default {word(rule.shipped)}</span>
		{:else}
			<button type="button" class="btn" disabled={!mayChange} onclick={reset}
				>Reset to {word(rule.shipped)}</button
			>
		{/if}
	</div>
	<p id="{id}-help" class={['text-sm', fault ? 'text-error' : 'faint']}>
		{fault ??
			`${rule.help}${rule.choices.length ? '' : `; ${plain(rule.low)} to ${plain(rule.high)}`}${rule.who ? `. Changed by ${rule.who}` : ''}`}
	</p>
</form>
