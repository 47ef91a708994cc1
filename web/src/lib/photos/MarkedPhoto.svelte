<script lang="ts">
	import MarkLayer from './MarkLayer.svelte';
	import { type Arrow, type Circle, type Shown, sourceOf } from './photo';

	interface Props {
		photo: Shown;
		arrows?: Arrow[];
		circles?: Circle[];
		tail?: [number, number] | null;
		/** As a thumbnail, where many stand together. */
		small?: boolean;
	}
	let { photo, arrows = photo.arrows, circles = photo.circles, tail = null, small = false }: Props = $props();

	let width = $state(0);
	let height = $state(0);
</script>

<span class="relative mx-auto block w-fit" bind:clientWidth={width} bind:clientHeight={height}>
	<img
		class="max-h-[46vh] max-w-full"
		src={sourceOf(photo.job, photo.id, small)}
		alt={photo.words || 'Photo'}
	/>
	{#if width}<MarkLayer {arrows} {circles} {tail} ratio={height / width} />{/if}
</span>
