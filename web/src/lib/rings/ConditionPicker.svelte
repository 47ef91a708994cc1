<script lang="ts">
	import type { Schemas } from '$lib/api';
	import ConditionPicture from './ConditionPicture.svelte';

	interface Props {
		value: Schemas['Condition'];
		beside: Schemas['Condition'][];
	}
	let { value = $bindable(), beside = $bindable() }: Props = $props();

	const conditions: { key: Schemas['Condition']; name: string; hint: string }[] = [
		{ key: 'new', name: 'New', hint: 'never fitted' },
		{ key: 'used', name: 'Used', hint: 'sound, but used' },
		{ key: 'flattened', name: 'Flattened', hint: 'flat sides: read the section twice, crossed' },
		{ key: 'swollen', name: 'Swollen', hint: 'soft, swollen by the fluid' },
		{ key: 'stretched', name: 'Stretched', hint: 'stretched in service, loose now' }
	];
	const hint = $derived(conditions.find((condition) => condition.key === value)?.hint ?? '');
	const others = $derived(
		conditions.filter((condition) => condition.key !== 'new' && condition.key !== value)
	);

	function turn(key: Schemas['Condition']) {
		beside = beside.includes(key) ? beside.filter((condition) => condition !== key) : [...beside, key];
	}
</script>

<fieldset class="mb-2">
	<legend class="mb-1 font-semibold"
		>Condition of the old ring <span class="faint font-normal">{hint}</span></legend
	>
	<div class="grid grid-cols-5 gap-1">
		{#each conditions as condition (condition.key)}
			<button
				type="button"
				class="btn h-auto flex-col gap-0 px-1 py-1 aria-pressed:btn-primary"
				aria-pressed={value === condition.key}
				title={condition.hint}
				onclick={() => (value = condition.key)}
			>
				<ConditionPicture condition={condition.key} />
				<span class="text-sm">{condition.name}</span>
			</button>
		{/each}
	</div>
	{#if value !== 'new'}
		<div class="mt-1 flex flex-wrap items-center gap-1" role="group" aria-label="What it is as well">
			<span class="faint text-sm">and as well</span>
			{#each others as other (other.key)}
				<button
					type="button"
					class="btn btn-sm min-h-11 aria-pressed:btn-primary"
					aria-pressed={beside.includes(other.key)}
					title={other.hint}
					onclick={() => turn(other.key)}>{other.name.toLowerCase()}</button
				>
			{/each}
		</div>
	{/if}
</fieldset>
