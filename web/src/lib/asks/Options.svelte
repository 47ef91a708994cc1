<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Schemas } from '$lib/api';
	import { focusAfter } from '$lib/shared';
	import { BURST_MS } from './wedge';

	interface Props {
		ask: Schemas['AskOut'];
		options: Schemas['AskOut']['choices'];
		chosen: string[];
		/** Whether several may hold at once. */
		several?: boolean;
		focused?: boolean;
		/** How many stand first, where not all of them are shown at once. */
		first?: number;
		drawn?: Snippet<[string]>;
		/** What the log would say, by answer. */
		words?: Record<string, string>;
		/** The task before was taken just now: a tap still belongs to it. */
		settling?: boolean;
		onPick: (key: string) => void;
	}
	let {
		ask,
		options,
		chosen,
		several = false,
		focused = false,
		first,
		drawn,
		words,
		settling = false,
		onPick
	}: Props = $props();

	/** Of a long list the likeliest stand first; the others are a tap away. */
	const MANY = 6;
	const FIRST = 5;
	const LONG = 40;
	let all = $state(false);
	const wordy = $derived(options.some((option) => (option.sign?.length ?? 0) > LONG));
	const shown = $derived(
		all || options.length <= (first ?? MANY)
			? options
			: options.filter((option, place) => place < (first ?? FIRST) || chosen.includes(option.key))
	);

	// The question takes the focus, none of its answers: Enter on it says nothing. A digit picks.
	const focusQuestion = (node: HTMLElement) => {
		if (focused) node.focus();
	};
	function pick(option: (typeof options)[number], group: HTMLElement | null) {
		if (settling) return;
		onPick(option.key);
		if (!several && group) focusAfter(group);
	}
	// What an instrument or a scanner types answers nothing.
	let lastKey = -BURST_MS;
	let waiting: ReturnType<typeof setTimeout> | undefined;
	function onkeydown(event: KeyboardEvent & { currentTarget: HTMLElement }) {
		const apart = event.timeStamp - lastKey;
		if (event.key.length === 1) lastKey = event.timeStamp;
		clearTimeout(waiting);
		if (apart < BURST_MS) return;
		const option = shown[Number(event.key) - 1];
		if (!option || event.repeat || event.ctrlKey || event.altKey || event.metaKey) return;
		event.preventDefault();
		const group = event.currentTarget;
		waiting = setTimeout(() => pick(option, group), BURST_MS);
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<fieldset data-asked tabindex="-1" {onkeydown} {@attach focusQuestion}>
	<legend class="mb-1 font-semibold">{ask.label}</legend>
	<div class="flex flex-wrap gap-2" role={several ? 'group' : 'radiogroup'} aria-label={ask.label}>
		{#each shown as option (option.key)}
			<button
				type="button"
				class={[
					'btn h-auto min-h-11 flex-col py-1 aria-checked:btn-primary aria-pressed:btn-primary',
					wordy ? 'basis-full items-start text-left' : 'flex-1 basis-32'
				]}
				role={several ? undefined : 'radio'}
				aria-checked={several ? undefined : chosen.includes(option.key)}
				aria-pressed={several ? chosen.includes(option.key) : undefined}
				data-entry-option
				aria-disabled={settling || undefined}
				onclick={(event) => pick(option, event.currentTarget.closest('fieldset'))}
			>
				{@render drawn?.(option.key)}
				<span>{option.says}</span>
				{#if words?.[option.key]}<span class="text-sm font-normal" data-records>“{words[option.key]}”</span
					>{/if}
				{#if option.sign}<span class="text-sm font-normal">{option.sign}</span>{/if}
			</button>
		{/each}
		{#if shown.length < options.length}
			<button type="button" class="btn h-auto min-h-11 flex-1 basis-32" onclick={() => (all = true)}
				>{options.length - shown.length} more …</button
			>
		{/if}
	</div>
</fieldset>
