<script lang="ts">
	import { type Shown, sourceOf } from './photo';

	interface Props {
		photo: Shown;
		/** Whether it is the one shown, where one of several is. */
		pressed?: boolean;
		onclick: () => void;
	}
	let { photo, pressed, onclick }: Props = $props();

	const caption = $derived(
		[photo.number ? `job ${photo.number}` : '', photo.time ?? ''].filter(Boolean).join(', ')
	);
</script>

<button
	class="relative rounded border-2 border-base-300 aria-pressed:border-primary"
	aria-pressed={pressed}
	{onclick}
>
	<img
		class="size-20 rounded object-cover"
		src={sourceOf(photo.job, photo.id, true)}
		alt={photo.words || 'Photo'}
		loading="lazy"
	/>
	{#if caption}<span class="absolute inset-x-0 bottom-0 bg-black/75 text-xs text-white">{caption}</span>{/if}
</button>
