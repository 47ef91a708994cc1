<script lang="ts">
	import { theGroove, GrooveForm } from '$lib/glands';
	import { RingMatch } from '$lib/rings';

	const grooveDesk = theGroove();

	$effect(() => grooveDesk.save());
</script>

<svelte:head><title>Ring finder · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">Which O-ring is it?</h1>
	<RingMatch keptAs="desk" groove={grooveDesk.body}>
		{#snippet beside()}
			<details class="panel">
				<summary class="min-h-8 cursor-pointer font-semibold"
					>The groove {grooveDesk.body
						? 'is taken into account'
						: '(if known: it outranks the old ring)'}</summary
				>
				<div class="mt-2">
					<GrooveForm
						bind:draft={grooveDesk.draft}
						bind:lengthUnit={grooveDesk.units.length}
						bind:pressureUnit={grooveDesk.units.pressure}
						problem={null}
					/>
					<button type="button" class="btn mt-2" onclick={() => grooveDesk.clear()}>Clear the groove</button>
				</div>
			</details>
		{/snippet}
	</RingMatch>
</main>
