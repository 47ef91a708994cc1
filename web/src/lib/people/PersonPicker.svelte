<script lang="ts">
	import UserRound from '@lucide/svelte/icons/user-round';
	import { people } from './people.svelte';
</script>

<label class="flex items-center gap-2">
	<UserRound size={20} aria-hidden="true" />
	<span class="sr-only">Who is at the bench</span>
	<select
		class={['entry select w-52', !people.current && people.loaded && 'select-warning']}
		value={people.key}
		onchange={(event) => people.choose(event.currentTarget.value)}
	>
		<option value="" disabled>Who is at the bench?</option>
		{#each people.all as person (person.key)}
			<option value={person.key}>{person.name}</option>
		{/each}
	</select>
</label>
