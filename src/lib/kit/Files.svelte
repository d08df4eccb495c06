<script lang="ts">
  import { Fileupload, type FileuploadProps } from 'flowbite-svelte';

  /** Files that are chosen, several at once. */
  let { onfiles, ...rest }: { onfiles: (files: readonly File[]) => void } & Omit<FileuploadProps, 'files'> =
    $props();
</script>

<Fileupload
  {...rest}
  multiple
  clearable={false}
  class="files"
  onchange={(event) => {
    const input = event.currentTarget as HTMLInputElement;
    onfiles([...(input.files ?? [])]);
    input.value = '';
  }}
/>
