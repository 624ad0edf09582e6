import { ref } from 'vue';

/** Files that are pasted, dropped or chosen: one way in for all three. */
export function useGivenFiles(take: (files: File[]) => void | Promise<void>) {
  /** Something is held over the place. */
  const over = ref(false);
  function give(files: Iterable<File> | null | undefined, event?: Event): void {
    const all = [...(files ?? [])];
    if (all.length === 0) return;
    event?.preventDefault();
    void take(all);
  }
  return {
    over,
    onPaste: (event: ClipboardEvent): void => give(event.clipboardData?.files, event),
    onDragover(event: DragEvent): void {
      event.preventDefault();
      over.value = true;
    },
    onDragleave: (): void => void (over.value = false),
    onDrop(event: DragEvent): void {
      over.value = false;
      give(event.dataTransfer?.files, event);
    },
    /** The same file can be chosen again after. */
    onChoose(event: Event): void {
      const input = event.target as HTMLInputElement;
      give(input.files);
      input.value = '';
    },
  };
}
