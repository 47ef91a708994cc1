<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { ProblemNote } from '$lib/shared';
	import Authorities from './Authorities.svelte';
	import SecretForm from './SecretForm.svelte';

	interface Props {
		person: Schemas['PersonOut'];
		register: Schemas['PeopleOut'];
		mayManage: boolean;
		onChanged: () => Promise<void>;
	}
	let { person, register, mayManage, onChanged }: Props = $props();

	let open = $state<'pin' | 'badge' | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const own = $derived(person.key === session.key);
	const path = $derived({ key: person.key });

	async function change(body: Schemas['PersonBody']) {
		problem = (await ask(api.PATCH('/api/people/{key}', { params: { path }, body }))).problem;
		await onChanged();
	}

	async function done() {
		open = null;
		await onChanged();
	}
</script>

<article class="panel" aria-label={person.name}>
	<h2 class="text-xl font-bold">
		{person.name}
		{#if !person.active}<span class="badge">left</span>{/if}
		{#if person.active && !person.has_pin}<span class="badge badge-warning">no PIN yet</span>{/if}
	</h2>
	<div class="flex flex-wrap items-center gap-2">
		{#if mayManage && person.active}
			<label class="flex items-center gap-2"
				><span class="faint">Role</span>
				<select
					class="entry select w-44"
					value={person.role}
					onchange={(event) => void change({ role: event.currentTarget.value as Schemas['Role'] })}
				>
					{#each register.roles as role (role.key)}<option value={role.key}>{role.word}</option>{/each}
				</select></label
			>
		{:else}<p>{person.role_word}</p>{/if}
		{#if (mayManage || own) && person.active}
			<button class="btn" onclick={() => (open = open === 'pin' ? null : 'pin')}
				>{person.has_pin ? 'New PIN' : 'Set a PIN'}</button
			>
			<button class="btn" onclick={() => (open = open === 'badge' ? null : 'badge')}
				>{person.has_badge ? 'Badge …' : 'Assign a badge'}</button
			>
		{/if}
		{#if mayManage && !own}
			<button class="btn" onclick={() => void change({ active: !person.active })}
				>{person.active ? 'Deactivate' : 'Reactivate'}</button
			>
		{/if}
	</div>
	<ProblemNote {problem} />
	{#if open}<SecretForm {person} what={open} {own} onDone={done} />{/if}
	<Authorities {person} known={register.authorities} {mayManage} {onChanged} />
</article>
