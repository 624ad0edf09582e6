<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Walk\Data\RemovalLine;
use LucidStep\App\Areas\Walk\Queries\ReadRemovals;
use LucidStep\App\Areas\Walk\Queries\WriteProtocol;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Record\BundleFile;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Protocol;
use LucidStep\Core\Record\StoredEvent;

/**
 * Packs the record of an attempt so that it can be checked outside: events, evidence, the case as it was walked, a
 * protocol, and the checker. The same record gives the same bytes.
 */
final readonly class MakeBundle
{
    public function __construct(
        private BundleFile $bundle,
        private WriteProtocol $protocol,
        private ReadRemovals $removed,
        private Journal $journal,
        private CycleChain $chain,
    ) {}

    /**
     * @return string the path of a temporary ZIP file; the caller deletes it
     */
    public function __invoke(Attempt $attempt): string
    {
        $attempt->loadMissing('entry.cycle', 'tester');
        $cycle = $attempt->entry->cycle;
        $removals = $this->removed->of($attempt->id);
        $stored = $this->journal->events($attempt);
        $chain = $this->chain->events($cycle->id);
        $event = static fn(StoredEvent $s): Event => $s->event;
        $gone = Protocol::gone(array_map($event, $chain), $attempt->id);
        [$protocol, $names] = ($this->protocol)($attempt, array_map($event, $stored), $gone);

        return $this->bundle->make(
            'README.txt',
            [
                'case.json' => CanonicalJson::encode($attempt->snapshot),
                'events.jsonl' => BundleFile::events($stored),
                'cycle-events.jsonl' => BundleFile::events($chain),
                'names.json' => json_encode((object) $names, BundleFile::JSON | \JSON_PRETTY_PRINT) . "\n",
                'protocol.md' => $protocol,
            ],
            $this->evidence($attempt),
            [
                'attempt' => [
                    'id' => $attempt->id,
                    'number' => $attempt->number,
                    'verdict' => $attempt->verdict?->value,
                    'events' => $attempt->sequence,
                    'head' => $attempt->head,
                    'sealed' => $attempt->sealed_head,
                ],
                'cycle' => [
                    'id' => $cycle->id,
                    'key' => $cycle->key,
                    'name' => $cycle->name,
                    'events' => $cycle->log_sequence,
                    'head' => '' === $cycle->log_head ? Chain::start($cycle->id) : $cycle->log_head,
                ],
                'case' => [
                    'key' => $attempt->snapshot['key'],
                    'version' => $attempt->snapshot['version'],
                    'title' => $attempt->snapshot['title'],
                ],
                'removed' => array_map(
                    static fn(RemovalLine $r): array => [
                        'kind' => $r->kind,
                        'subject' => $r->subject,
                        'reason' => $r->reason,
                        'by' => $r->by?->name,
                        'at' => $r->at,
                    ],
                    $removals,
                ),
            ],
        );
    }

    /**
     * Every file that an event of the attempt names, taken off ones among them; what was removed has no content any more.
     *
     * @return list<StoredFile>
     */
    private function evidence(Attempt $attempt): array
    {
        $hashes = [];
        foreach (DB::table('events')->where('attempt_id', $attempt->id)->orderBy('sequence')->pluck('evidence') as $of) {
            array_push($hashes, ...json_decode((string) $of, true, 16, \JSON_THROW_ON_ERROR));
        }
        $gone = DB::table('removals')->where('attempt_id', $attempt->id)->where('kind', 'file')->pluck('subject')->all();

        return array_values(
            StoredFile::query()
                ->whereIn('sha256', array_diff(array_unique($hashes), $gone))
                ->orderBy('sha256')
                ->get()
                ->all(),
        );
    }
}
