<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { binFolder, createFolder, saveFolder } from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import { seenNow } from '@/kit/useSeen';
import { undoAct } from '@/areas/casebook/frame';
import { tree, type TreeLine } from '@/areas/casebook/filter';

/** The folders of the casebook. Cases and folders are dropped on them; whatever is dragged can also be moved by keys. */
const props = defineProps<{
  project: string;
  folders: Api['FolderLine'][];
  folder: string;
  cases: number;
  mayWrite: boolean;
}>();
const emit = defineEmits<{ choose: [folder: string]; changed: []; cases: [ids: string[], folder: string] }>();
const KEEP = `lucid-step-folders-${props.project}`;
const closed = ref(new Set<string>(JSON.parse(localStorage.getItem(KEEP) ?? '[]') as string[]));
const lines = computed(() => tree(props.folders, closed.value));
const over = ref('');
const editing = ref<{ id: string | null; parent: string | null; name: string; seen: string } | null>(null);
const problem = ref('');
const menu = ref('');

function toggle(id: string): void {
  const next = new Set(closed.value);
  if (!next.delete(id)) next.add(id);
  closed.value = next;
  localStorage.setItem(KEEP, JSON.stringify([...next]));
}
async function edit(line: TreeLine | null, parent: string | null): Promise<void> {
  menu.value = '';
  problem.value = '';
  editing.value = { id: line?.id ?? null, parent, name: line?.name ?? '', seen: line?.seen ?? '' };
  await nextTick();
  document.querySelector<HTMLInputElement>('#folder-name')?.select();
}
async function keep(): Promise<void> {
  const now = editing.value;
  if (!now) return;
  try {
    if (now.id) await saveFolder(now.id, { name: now.name, seen: now.seen });
    else await createFolder(props.project, { name: now.name, parent_id: now.parent });
    editing.value = null;
    emit('changed');
  } catch (error) {
    now.seen = seenNow(error) ?? now.seen;
    problem.value = errorMessage(error);
  }
}
async function move(id: string, parent: string | null, before: string | null): Promise<void> {
  try {
    await saveFolder(id, { move: true, parent_id: parent, before });
    emit('changed');
  } catch (error) {
    toast(errorMessage(error));
  }
}
/** Moves a folder among its neighbours, or into and out of them. */
function shift(line: TreeLine, key: string): void {
  const siblings = props.folders.filter((f) => f.parent_id === line.parent_id);
  const at = siblings.findIndex((f) => f.id === line.id);
  if (key === 'ArrowUp' && at > 0) void move(line.id, line.parent_id, siblings[at - 1]?.id ?? null);
  if (key === 'ArrowDown' && at < siblings.length - 1)
    void move(line.id, line.parent_id, siblings[at + 2]?.id ?? null);
  if (key === 'ArrowRight' && at > 0) void move(line.id, siblings[at - 1]?.id ?? null, null);
  if (key === 'ArrowLeft' && line.parent_id) {
    const parent = props.folders.find((f) => f.id === line.parent_id);
    void move(line.id, parent?.parent_id ?? null, null);
  }
}
function onKey(event: KeyboardEvent, line: TreeLine): void {
  if (event.altKey && event.key.startsWith('Arrow') && props.mayWrite) {
    event.preventDefault();
    shift(line, event.key);
  } else if (event.key === 'ArrowRight' && closed.value.has(line.id)) toggle(line.id);
  else if (event.key === 'ArrowLeft' && line.hasChildren && !closed.value.has(line.id)) toggle(line.id);
  else if (event.key === 'F2' && props.mayWrite) void edit(line, line.parent_id);
}
async function bin(line: TreeLine): Promise<void> {
  menu.value = '';
  try {
    const data = await binFolder(line.id);
    emit('changed');
    if (props.folder === line.id) emit('choose', '');
    const act = data?.act_id;
    toast(
      `The folder "${line.name}" with ${line.all} cases is in the bin.`,
      act ? async () => undoAct(act) : undefined,
    );
  } catch (error) {
    toast(errorMessage(error));
  }
}
function drop(event: DragEvent, target: TreeLine | null): void {
  over.value = '';
  const cases = event.dataTransfer?.getData('application/x-cases');
  const folder = event.dataTransfer?.getData('application/x-folder');
  if (cases) emit('cases', JSON.parse(cases) as string[], target?.id ?? '');
  else if (folder && folder !== target?.id) void move(folder, target?.id ?? null, null);
}
</script>

<template>
  <nav aria-label="Folders">
    <div
      class="line"
      :class="{ over: over === 'all' }"
      @dragover.prevent="over = 'all'"
      @dragleave="over = ''"
      @drop.prevent="drop($event, null)"
    >
      <button
        type="button"
        class="name"
        :aria-current="folder === '' ? 'true' : undefined"
        @click="emit('choose', '')"
      >
        <span>All cases</span><span class="soft">{{ cases || '' }}</span>
      </button>
    </div>
    <div
      v-for="f in lines"
      :key="f.id"
      class="line"
      :class="{ over: over === f.id }"
      :draggable="mayWrite"
      @dragstart.stop="$event.dataTransfer?.setData('application/x-folder', f.id)"
      @dragover.prevent="over = f.id"
      @dragleave="over = ''"
      @drop.prevent.stop="drop($event, f)"
    >
      <button
        v-if="f.hasChildren"
        type="button"
        class="fold"
        :style="{ marginLeft: `${f.depth * 14}px` }"
        :aria-expanded="!closed.has(f.id)"
        :aria-label="`${closed.has(f.id) ? 'Open' : 'Close'} ${f.name}`"
        @click="toggle(f.id)"
      >
        {{ closed.has(f.id) ? '+' : '−' }}
      </button>
      <span v-else class="fold" :style="{ marginLeft: `${f.depth * 14}px` }" />
      <button
        type="button"
        class="name"
        :aria-current="folder === f.id ? 'true' : undefined"
        :title="mayWrite ? 'F2 renames; Alt and an arrow key moves' : undefined"
        @click="emit('choose', f.id)"
        @keydown="onKey($event, f)"
      >
        <span class="long">{{ f.name }}</span><span class="soft">{{
          closed.has(f.id) ? f.all : f.cases
        }}</span>
      </button>
      <div v-if="mayWrite" class="more">
        <button
          type="button"
          class="dots"
          :aria-label="`What can be done with ${f.name}`"
          :aria-expanded="menu === f.id"
          @click="menu = menu === f.id ? '' : f.id"
        >
          ⋯
        </button>
        <div v-if="menu === f.id" class="menu sheet" @keydown.esc="menu = ''">
          <button type="button" class="link" @click="edit(f, f.parent_id)">Rename</button>
          <button type="button" class="link" @click="edit(null, f.id)">New folder inside</button>
          <button type="button" class="link" @click="shift(f, 'ArrowUp')">Move up</button>
          <button type="button" class="link" @click="shift(f, 'ArrowDown')">Move down</button>
          <button type="button" class="link" @click="bin(f)">Bin with its cases</button>
        </div>
      </div>
    </div>
    <form v-if="editing" class="edit" @submit.prevent="keep">
      <label for="folder-name" class="label">{{ editing.id ? 'New name' : 'Name of the folder' }}</label>
      <input id="folder-name" v-model="editing.name" class="field" @keydown.esc="editing = null" />
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <div class="row">
        <button type="submit" class="link">Keep</button
        ><button type="button" class="link soft" @click="editing = null">Leave it</button>
      </div>
    </form>
    <button v-else-if="mayWrite" type="button" class="link soft new" @click="edit(null, folder || null)">
      New folder
    </button>
  </nav>
</template>

<style scoped>
nav {
  display: grid;
  gap: 1px;
}
.line {
  position: relative;
  display: flex;
  align-items: center;
  border-radius: 4px;
}
.line.over {
  outline: 2px solid var(--dusk);
}
.name {
  flex: 1;
  min-width: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 5px 8px;
  border: 0;
  border-radius: 4px;
  background: none;
  font: inherit;
  color: var(--ink);
  text-align: left;
  cursor: pointer;
}
.name:hover {
  background: var(--well);
}
.name[aria-current] {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
  font-weight: 700;
}
.fold {
  width: 18px;
  flex: none;
  border: 0;
  background: none;
  font: inherit;
  color: var(--ink-soft);
  padding: 0;
  cursor: pointer;
}
.more {
  flex: none;
}
.dots {
  border: 0;
  background: none;
  color: var(--ink-soft);
  cursor: pointer;
  opacity: 0;
  padding: 2px 4px;
}
.line:hover .dots,
.dots:focus-visible,
.dots[aria-expanded='true'] {
  opacity: 1;
}
.menu {
  position: absolute;
  right: 0;
  top: 30px;
  z-index: 8;
  padding: 10px 14px;
  display: grid;
  gap: 8px;
  justify-items: start;
  box-shadow: var(--float);
}
.edit {
  padding: 8px;
  display: grid;
  gap: 6px;
}
.new {
  justify-self: start;
  padding: 8px 8px 0 26px;
}
</style>
