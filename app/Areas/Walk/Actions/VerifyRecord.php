<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Walk\Queries\ReadAttemptRows;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Files\ContentHash;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Record\RecordSigner;
use LucidStep\Core\Record\AttemptCheck;
use LucidStep\Core\Record\Seal;
use LucidStep\Core\Record\Signed;
use LucidStep\Core\Record\StoredEvent;
use LucidStep\Core\Record\Verification;

/**
 * Checks a record: events, texts, what people are shown of them, files, seal, and the chain of the cycle.
 */
final readonly class VerifyRecord
{
    public function __construct(
        private Journal $journal,
        private CycleChain $chain,
        private RecordSigner $signer,
        private ReadAttemptRows $rows,
        private RefreshEntry $entries,
        private Filesystem $files,
    ) {}

    public function __invoke(Attempt $attempt): Verification
    {
        $events = $this->journal->events($attempt);
        $entry = Entry::query()->findOrFail($attempt->entry_id);
        $cycle = Cycle::query()->findOrFail($entry->cycle_id);
        $chain = $this->chain->events($cycle->id);
        $check = new AttemptCheck($attempt->id, $events, $chain);

        return $check->verify(
            new Seal($attempt->sequence, $attempt->head),
            null === $attempt->sealed_sequence ? null : new Seal($attempt->sealed_sequence, (string) $attempt->sealed_head),
            ($this->rows)($attempt),
            $this->entries->difference($entry),
            $this->found($events),
            array_values(
                DB::table('removals')
                    ->where('attempt_id', $attempt->id)
                    ->get(['kind', 'subject'])
                    ->map(static fn(object $r): array => [(string) $r->kind, (string) $r->subject])
                    ->all(),
            ),
            $this->chain->verify($cycle, $chain),
            null === $attempt->sealed_sequence
                ? null
                : $this->signer->fault(
                    Signed::seal($attempt->id, $attempt->sealed_sequence, (string) $attempt->sealed_head),
                    $attempt->seal_signature,
                ),
        );
    }

    /**
     * Checks a cycle's own chain, and that every attempt it tells of is there as it says.
     */
    public function cycle(Cycle $cycle): Verification
    {
        $chain = $this->chain->events($cycle->id);
        $found = $this->chain->verify($cycle, $chain);
        if ('broken' === $found->state) {
            return $found;
        }
        $stored = DB::table('events')
            ->join('attempts', 'attempts.id', '=', 'attempt_id')
            ->join('entries', 'entries.id', '=', 'entry_id')
            ->where('cycle_id', $cycle->id)
            ->orderBy('events.sequence')
            ->get(['attempt_id', 'events.sequence', 'events.kind', 'hash']);
        $events = [];
        foreach ($stored as $event) {
            $events[(string) $event->attempt_id][(int) $event->sequence] = [(string) $event->kind, (string) $event->hash];
        }

        return AttemptCheck::attemptsOf($chain, $events, Journal::CHAINED, $found);
    }

    /**
     * @param  list<StoredEvent>  $events
     *
     * @return array<string, ?string> the SHA-256 found for each file they name
     */
    private function found(array $events): array
    {
        $found = [];
        foreach ($events as $stored) {
            foreach ($stored->event->evidence as $sha256) {
                $path = (new StoredFile(['sha256' => $sha256]))->path();
                $found[$sha256] ??= ContentHash::of($this->files, $path);
            }
        }

        return $found;
    }
}
