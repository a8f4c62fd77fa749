<script lang="ts">
	import ProjectPages from '$lib/frame/ProjectPages.svelte';

	let { data, children } = $props();
</script>

<!-- Going back in the browser can lead from one project straight to another. -->
{#key data.project}
	<ProjectPages {data} {children} />
{/key}
