<script lang="ts">
	import { duration } from '$lib/shared';

	interface Props {
		/** Seconds since the run was started. */
		elapsed: number;
		/** When the first reading was taken, in seconds since the start. */
		first: number | null;
		planned: number;
	}
	let { elapsed, first, planned }: Props = $props();
	const held = $derived(first === null ? 0 : Math.max(0, elapsed - first));
</script>

<div class="mb-2 flex flex-wrap items-center gap-3" role="timer" aria-label="Time on hold">
	<span class="text-3xl font-extrabold tabular-nums" data-held>{duration(held)}</span>
	<span class="min-w-52 flex-1">
		<progress class="progress progress-primary w-full" value={held} max={planned}></progress>
		<span class="faint text-sm">
			{#if first === null}The hold counts from the first reading; hold {duration(planned)} from there.
			{:else if held < planned}of {duration(planned)} planned; {duration(planned - held)} to go
			{:else}the planned {duration(planned)} are held{/if}
		</span>
	</span>
</div>
