<script lang="ts" generics="Key extends string">
	interface Props {
		/** What is filtered, for those who do not see it. */
		label: string;
		chips: { key: Key; name: string; count?: number | null }[];
		chosen: Key;
	}
	let { label, chips, chosen = $bindable() }: Props = $props();
</script>

<div
	class="flex min-w-0 gap-2 overflow-x-auto py-1 sm:flex-wrap sm:overflow-visible"
	role="group"
	aria-label={label}
>
	{#each chips as chip (chip.key)}
		<button
			type="button"
			class={['btn btn-sm min-h-11 shrink-0 px-3', chosen === chip.key && 'btn-primary']}
			aria-pressed={chosen === chip.key}
			onclick={() => (chosen = chip.key)}
			>{chip.name}{#if chip.count !== undefined && chip.count !== null}<span class="font-extrabold"
					>{chip.count}</span
				>{/if}</button
		>
	{/each}
</div>
