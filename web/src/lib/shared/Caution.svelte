<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';

	let { text }: { text: string } = $props();
</script>

<p class="flex items-start gap-2 rounded border border-warning px-2 py-1 font-semibold">
	<TriangleAlert size={22} class="mt-0.5 shrink-0 text-warning" aria-hidden="true" />
	<span><span class="sr-only">Caution: </span>{text}</span>
</p>
