<script lang="ts">
	import ZoomIn from '@lucide/svelte/icons/zoom-in';
	import ZoomOut from '@lucide/svelte/icons/zoom-out';
	import type { Snippet } from 'svelte';
	import { Zoom } from './zoom.svelte';

	interface Props {
		/** What is drawn. */
		name: string;
		/** What it shows: another begins at its whole. */
		of: string;
		children: Snippet;
		/** What stands below it, beside its buttons. */
		below?: Snippet;
	}
	let { name, of, children, below }: Props = $props();

	const zoom = new Zoom();
	let frame = $state<HTMLElement>();
	$effect(() => {
		void of;
		zoom.reset();
	});
</script>

<div>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div
		bind:this={frame}
		class={['overflow-hidden rounded', zoom.scale > 1 ? 'touch-none cursor-grab' : 'touch-pan-y']}
		role="group"
		tabindex="0"
		aria-label="{name}: plus and minus enlarge it, arrows move it, 0 shows it whole"
		data-zoom={zoom.scale.toFixed(1)}
		{@attach zoom.attach}
	>
		<div class="origin-top-left" style:transform="translate({zoom.x}px, {zoom.y}px) scale({zoom.scale})">
			{@render children()}
		</div>
	</div>
	<div class="flex items-start gap-1" data-aside>
		<div class="min-w-0 flex-1">{@render below?.()}</div>
		{#if zoom.scale > 1}<button class="btn btn-ghost btn-sm min-h-11" onclick={() => zoom.reset()}
				>Whole</button
			><button
				class="btn btn-square btn-ghost btn-sm min-h-11"
				aria-label="Smaller"
				onclick={() => frame && zoom.step(false, frame)}><ZoomOut size={20} /></button
			>{/if}
		<button
			class="btn btn-square btn-ghost btn-sm min-h-11"
			aria-label="Larger"
			onclick={() => frame && zoom.step(true, frame)}><ZoomIn size={20} /></button
		>
	</div>
</div>
