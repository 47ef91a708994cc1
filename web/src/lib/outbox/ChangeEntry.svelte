<script lang="ts">
	import { untrack } from 'svelte';
	import type { Schemas } from '$lib/api';
	import { AskField, filled, type Values } from '$lib/asks';
	import { device } from './device.svelte';
	import type { Waiting } from './types';

	interface Props {
		entry: Waiting;
		fields: Schemas['EntryFieldOut'][];
		onDone: () => void;
	}
	let { entry, fields, onDone }: Props = $props();

	let values = $state<Values>(
		untrack(() =>
			Object.fromEntries(
				fields.map(({ ask, value }) => [ask.field, typeof value === 'number' ? `${value}` : value])
			)
		)
	);

	async function send(event: SubmitEvent) {
		event.preventDefault();
		const asks = fields.map(({ ask }) => ask);
		await device.change(entry, filled(entry.payload, asks, values));
		onDone();
	}
</script>

<form class="mt-1 space-y-2" onsubmit={send} data-form>
	{#each fields as { ask } (ask.field)}
		<AskField {ask} bind:value={values[ask.field]} />
	{/each}
	<div class="flex gap-2">
		<button class="btn btn-primary">Change and send</button>
		<button type="button" class="btn" onclick={onDone}>Back</button>
	</div>
</form>
