<script lang="ts">
	/** One figure with its formula beside it. */
	let { name, value, formula }: { name: string; value: string; formula: string } = $props();
</script>

<div class="border-b border-base-300 py-1">
	<dt class="faint text-sm">{name}</dt>
	<dd class="flex flex-wrap items-baseline justify-between gap-x-3">
		<span class="text-xl font-bold">{value}</span><span class="faint text-sm">{formula}</span>
	</dd>
</div>
