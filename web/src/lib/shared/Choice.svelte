<script lang="ts" generics="T extends string">
	interface Props {
		name: string;
		options: readonly (readonly [T, string, string?])[];
		value: T;
	}
	let { name, options, value = $bindable() }: Props = $props();
</script>

<fieldset class="mb-2">
	<legend class="text-sm font-semibold">{name}</legend>
	<div class="flex flex-wrap gap-1">
		{#each options as [key, word, hint] (key)}
			<button
				type="button"
				class="btn px-2.5 aria-pressed:btn-primary"
				aria-pressed={value === key}
				title={hint}
				onclick={() => (value = key)}>{word}</button
			>
		{/each}
	</div>
</fieldset>
