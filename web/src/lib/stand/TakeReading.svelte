<script lang="ts">
	import { inUnit } from '$lib/shared';
	import { LiveStand } from './live.svelte';

	interface Props {
		/** Who takes what is shown; without one it goes into the field that was in hand last, or the first empty one. */
		onTake?: (shown: string) => void;
	}
	let { onTake }: Props = $props();

	const live = new LiveStand();
	let open = $state(false);
	let field: HTMLInputElement | null = null;
	let box: HTMLElement;

	/** A valve opens in a moment: what the pressure came to stays on screen for a while. */
	const PEAK_S = 10;
	const highest = $derived.by(() => {
		const since = (live.now?.read_at ?? 0) - PEAK_S;
		const of = live.recent.filter((sample) => sample.t_s >= since).map((sample) => sample.pressure_mpa);
		return of.length ? inUnit(Math.max(...of), 'bar') : null;
	});

	$effect(() => (open ? live.follow() : undefined));

	function remember(event: FocusEvent) {
		if (event.target instanceof HTMLInputElement && event.target.matches('[data-entry]'))
			field = event.target;
	}
	function take(shown: string) {
		if (onTake) return onTake(shown);
		const fields = [
			...(box.closest('[data-form]')?.querySelectorAll<HTMLInputElement>('[data-entry]') ?? [])
		];
		const inHand = field !== null && fields.includes(field) && !field.value.trim() ? field : null;
		const target = inHand ?? fields.find((field) => !field.value.trim());
		if (!target) return;
		target.value = shown;
		target.dispatchEvent(new Event('input', { bubbles: true }));
		field = null;
	}
</script>

<svelte:document onfocusin={remember} />
<details bind:open bind:this={box}>
	<summary class="min-h-11 cursor-pointer content-center font-semibold">Read from the test stand</summary>
	{#if live.lost}<p class="text-warning">No reading from the test stand.</p>
	{:else if live.now?.away}<p class="text-warning">{live.now.away}</p>{/if}
	<div class="flex flex-wrap gap-2">
		{#if highest !== null}
			<button type="button" class="btn min-h-14" onclick={() => take(`${highest.toFixed(2)} bar`)}>
				<span class="text-left"
					><span class="faint block text-sm">Highest in the last {PEAK_S} s</span><span class="tabular-nums"
						>{highest.toFixed(2)} bar</span
					></span
				>
			</button>
		{/if}
		{#each live.now?.reading?.channels ?? [] as channel (channel.key)}
			<button
				type="button"
				class="btn min-h-14"
				disabled={channel.value === null}
				aria-label="Take {channel.name}: {channel.shown}"
				onclick={() => take(channel.shown.replace('−', '-'))}
			>
				<span class="text-left"
					><span class="faint block text-sm">{channel.name}</span><span class="tabular-nums"
						>{channel.shown}</span
					></span
				>
			</button>
		{/each}
	</div>
</details>
