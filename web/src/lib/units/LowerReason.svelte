<script lang="ts">
	/** Why a counter reads less than before. */
	let { value = $bindable('') }: { value: '' | 'new_counter' | 'mistake' } = $props();
	const id = $props.id();
</script>

<div>
	<label class="block font-semibold" for={id}>Why the reading is lower</label>
	<select {id} class="entry select w-full" bind:value>
		<option value="">it is not: I mistyped it</option>
		<option value="new_counter">a new counter, or reset</option>
		<option value="mistake">the earlier reading was a mistake</option>
	</select>
</div>
