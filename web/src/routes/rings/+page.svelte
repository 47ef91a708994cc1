<script lang="ts">
	import { emptyGroove, grooveBody, GrooveForm, isComplete } from '$lib/glands';
	import { RingMatch } from '$lib/rings';

	let draft = $state(emptyGroove());
	let lengthUnit = $state('mm');
	let pressureUnit = $state('bar');
	const groove = $derived(isComplete(draft) ? grooveBody(draft, lengthUnit, pressureUnit) : null);
</script>

<svelte:head><title>Ring finder · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">Which O-ring is it?</h1>
	<RingMatch {groove}>
		{#snippet beside()}
			<details class="panel">
				<summary class="min-h-8 cursor-pointer font-semibold"
					>The groove {groove
						? 'is taken into account'
						: '(if you know it: it outranks the old ring)'}</summary
				>
				<div class="mt-2"><GrooveForm bind:draft bind:lengthUnit bind:pressureUnit problem={null} /></div>
			</details>
		{/snippet}
	</RingMatch>
</main>
