<script module lang="ts">
	import type { Schemas } from '$lib/api';

	export interface Facts {
		locking: Schemas['Locking'][];
		into: string;
		engaged: string;
		unit: string;
	}
</script>

<script lang="ts">
	import { api, ask } from '$lib/api';
	import { QuantityField } from '$lib/shared';

	interface Props {
		facts: Facts;
		/** Whether the sheet names thread and grade, without which nothing can be said of stripping. */
		threaded: boolean;
		fault: string | null;
	}
	let { facts = $bindable(), threaded, fault }: Props = $props();
	let choices = $state.raw<Schemas['TorqueChoicesOut'] | null>(null);

	$effect(() => {
		void ask(api.GET('/api/torque/choices')).then((answer) => (choices = answer.data));
	});

	function toggle(way: Schemas['Locking']) {
		facts.locking = facts.locking.includes(way)
			? facts.locking.filter((means) => means !== way)
			: [...facts.locking, way];
	}
</script>

{#if choices}
	<details class="mt-1 border-t border-base-300 pt-1">
		<summary class="flex min-h-11 cursor-pointer items-center font-semibold"
			>Locking{threaded ? ', thread in' : ''}</summary
		>
		<div class="flex flex-wrap gap-1" role="group" aria-label="Kept from turning by">
			{#each choices.locking as way (way.key)}
				<button
					type="button"
					class="btn px-2.5 aria-pressed:btn-primary"
					aria-pressed={facts.locking.includes(way.key)}
					onclick={() => toggle(way.key)}>{way.says}</button
				>
			{/each}
		</div>
		{#if threaded}
			<div class="mt-2 flex flex-wrap items-start gap-3">
				<label class="block font-semibold"
					>Thread in
					<select class="entry select mt-1 block" bind:value={facts.into}>
						<option value="">not stated</option>
						{#each choices.into as choice (choice.key)}<option value={choice.key}>{choice.says}</option
							>{/each}
					</select>
				</label>
				<QuantityField
					label="Engaged length"
					dimension="length"
					bind:value={facts.engaged}
					bind:unit={facts.unit}
					{fault}
				/>
			</div>
		{/if}
	</details>
{/if}
