<script lang="ts">
	import { api, ask, type Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';

	let link = $state<string | null>(null);
	let problem = $state.raw<Problem | null>(null);

	async function make() {
		const answer = await ask(api.POST('/api/due/feed'));
		problem = answer.problem;
		link = answer.data?.link ?? link;
	}
</script>

<p>
	A calendar program can follow what is due. The link needs no signing in and shows nothing else; whoever has
	it can read it, and the lead can revoke it under Workshop.
</p>
{#if link}
	<p class="font-semibold">It is shown now and never again:</p>
	<p class="my-1 font-mono break-all select-all">{link}</p>
{:else}
	<button class="btn mt-1" onclick={() => void make()}>Make a link for my calendar</button>
{/if}
<ProblemNote {problem} />
