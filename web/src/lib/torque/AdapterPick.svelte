<script lang="ts">
	import { QuantityField, usualUnit, withUnit } from '$lib/shared';
	import { untrack } from 'svelte';

	interface Adapter {
		wrench_length: string;
		extension: string;
		angle_deg: number;
	}
	interface Props {
		/** What stands between wrench and fastener, as far as it changes what the scale reads. */
		adapter: Adapter | null;
		fault: (field: string) => string | null;
	}
	let { adapter = $bindable(), fault }: Props = $props();

	type Way = 'none' | 'straight' | 'square';
	const WAYS: readonly (readonly [Way, string])[] = [
		['none', 'No adapter'],
		['straight', 'In line'],
		['square', 'At a right angle']
	];
	let way = $state<Way>(untrack(() => (adapter ? 'straight' : 'none')));
	let open = $state(untrack(() => adapter !== null));
	let length = $state(untrack(() => adapter?.wrench_length ?? ''));
	let reach = $state(untrack(() => adapter?.extension ?? ''));
	let lengthUnit = $state(usualUnit('length'));
	let reachUnit = $state(usualUnit('length'));

	$effect(() => {
		const whole = way === 'straight' && length.trim() && reach.trim();
		adapter = whole
			? {
					wrench_length: withUnit(length, lengthUnit),
					extension: withUnit(reach, reachUnit),
					angle_deg: 0
				}
			: null;
	});
</script>

<details bind:open class="open:basis-full">
	<summary class="min-h-11 cursor-pointer content-center font-semibold"
		>Adapter on the wrench{way === 'straight' ? ': in line' : ''}</summary
	>
	<div class="flex flex-wrap gap-2">
		{#each WAYS as [key, word] (key)}
			<button
				type="button"
				class="btn h-auto flex-col px-3 py-2 aria-pressed:btn-primary"
				aria-pressed={way === key}
				onclick={() => (way = key)}
			>
				<svg viewBox="0 0 120 44" class="h-12 w-32" aria-hidden="true">
					<rect x="4" y="18" width="74" height="8" rx="4" fill="currentColor" />
					<circle cx="80" cy="22" r="9" fill="none" stroke="currentColor" stroke-width="3" />
					{#if key === 'none'}<rect x="76" y="18" width="8" height="8" fill="currentColor" />{/if}
					{#if key === 'straight'}
						<path d="M89 22H104" stroke="currentColor" stroke-width="6" />
						<circle cx="110" cy="22" r="6" fill="none" stroke="currentColor" stroke-width="3" />
					{/if}
					{#if key === 'square'}
						<path d="M80 13V8" stroke="currentColor" stroke-width="6" />
						<circle cx="80" cy="5" r="4" fill="none" stroke="currentColor" stroke-width="3" />
					{/if}
				</svg>
				{word}
			</button>
		{/each}
	</div>
	{#if way === 'straight'}
		<p class="faint text-sm">The scale then shows less than the fastener gets. Enter what the scale shows.</p>
		<div class="flex flex-wrap gap-x-3">
			<QuantityField
				label="From the middle of the grip to the square"
				dimension="length"
				bind:value={length}
				bind:unit={lengthUnit}
				fault={fault('adapter.wrench_length')}
			/>
			<QuantityField
				label="From the square to the fastener"
				dimension="length"
				bind:value={reach}
				bind:unit={reachUnit}
				fault={fault('adapter.extension')}
			/>
		</div>
	{:else if way === 'square'}
		<p class="faint text-sm">At a right angle to the wrench, the scale shows the torque at the fastener.</p>
	{/if}
</details>
