<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { day, ProblemNote } from '$lib/shared';

	let feed = $state.raw<Schemas['FeedOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);

	async function make() {
		const answer = await ask(api.POST('/api/due/feed'));
		problem = answer.problem;
		feed = answer.data ?? feed;
	}
</script>

<p>
	A calendar program can show what is due. The link needs no sign-in and shows nothing else; whoever has it
	can read it, and the lead can revoke it under Workshop. It expires after a year.
</p>
{#if feed}
	<p class="font-semibold">It is shown only now and is valid until {day(feed.ends_at)}:</p>
	<p class="my-1 font-mono break-all select-all">{feed.link}</p>
{:else}
	<button class="btn mt-1" onclick={() => void make()}>Make a link for my calendar</button>
{/if}
<ProblemNote {problem} />
