<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { AddForm, ProblemNote } from '$lib/shared';
	import PersonCard from './PersonCard.svelte';

	let register = $state.raw<Schemas['PeopleOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const mayManage = $derived(session.may('manage_people'));

	async function load() {
		const answer = await ask(api.GET('/api/people/register'));
		register = answer.data ?? register;
		problem = answer.problem;
	}
	$effect(() => {
		void load();
	});

	async function add(v: Record<string, string>) {
		const role = register?.roles.find((role) => role.word === v.role)?.key ?? 'technician';
		const answer = await ask(
			api.POST('/api/people', {
				body: { name: v.name ?? '', role: role as Schemas['Role'], pin: v.pin ?? '' }
			})
		);
		await load();
		return answer.problem;
	}
</script>

<svelte:head><title>People and rights · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-6xl flex-1 p-4 pt-2">
	<h1 class="text-4xl font-extrabold">People and rights</h1>
	<p class="mb-2">
		Every record carries the name of the person signed in. Who may release lifting gear, life support or
		pressure vessels is listed here, with the last valid day.
	</p>
	<ProblemNote {problem} />
	{#if mayManage && register}
		<AddForm
			what="person"
			fields={[
				{ key: 'name', name: 'Name' },
				{ key: 'role', name: 'Role', choices: register.roles.map((role) => role.word).reverse() },
				{ key: 'pin', name: 'First PIN', hint: 'six digits; they change it themselves', secret: true }
			]}
			{add}
		/>
	{/if}
	<ul class="mt-3 grid items-start gap-3 lg:grid-cols-2">
		{#each register?.people ?? [] as person (person.key)}
			<li><PersonCard {person} register={register!} {mayManage} onChanged={load} /></li>
		{/each}
	</ul>
</main>
