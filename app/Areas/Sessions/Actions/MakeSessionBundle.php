<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use LucidStep\App\Areas\Sessions\Queries\ReadSheet;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Record\BundleFile;
use LucidStep\App\Support\Record\SessionJournal;

/**
 * Packs the record of a session so that it can be checked outside, by the same checker as that of a walk.
 */
final readonly class MakeSessionBundle
{
    public function __construct(private BundleFile $bundle, private SessionJournal $journal, private ReadSheet $sheet) {}

    /**
     * @return string the path of a temporary ZIP file; the caller deletes it
     */
    public function __invoke(TestSession $session, User $reader): string
    {
        $events = $this->journal->events($session);
        $gone = SessionLine::query()->where('session_id', $session->id)->whereNotNull('removed_at')->get()->keyBy('id');
        $hashes = $removed = [];
        foreach ($events as $event) {
            $line = $gone->get((string) ($event->event->payload['line'] ?? ''));
            foreach ($event->event->evidence as $sha256) {
                if (null === $line) {
                    $hashes[] = $sha256;
                } else {
                    $at = $line->removed_at?->toIso8601ZuluString();
                    $removed[] = ['kind' => 'file', 'subject' => $sha256, 'reason' => $line->removed_reason, 'by' => null, 'at' => $at];
                }
            }
        }
        $sheet = ($this->sheet)($session, $reader);

        return $this->bundle->make(
            'README-session.txt',
            ['events.jsonl' => BundleFile::events($events), 'sheet.md' => $sheet->markdown],
            array_values(StoredFile::query()->whereIn('sha256', array_unique($hashes))->orderBy('sha256')->get()->all()),
            [
                'session' => [
                    'id' => $session->id,
                    'charter' => $sheet->session->charter->key,
                    'number' => $session->number,
                    'events' => $session->sequence,
                    'head' => $session->head,
                    'sealed' => $session->sealed_head,
                ],
                'removed' => $removed,
            ],
        );
    }
}
