<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Removed;
use LucidStep\Core\Record\Seal;
use LucidStep\Core\Record\Signed;
use LucidStep\Core\Record\StoredEvent;
use LucidStep\Core\Record\Verification;

/**
 * Writes the events of a session, each linked to the one before, and checks them. Signing it off seals them.
 */
final readonly class SessionJournal
{
    /** What ends a session's record. */
    private const END = 'signed_off';

    public function __construct(private EventWriter $writer, private RecordSigner $signer) {}

    /**
     * Appends an event. The session must be locked by the transaction; its sequence, its head and, where the event ends it, its seal move
     * on and are left for the caller to save.
     *
     * @param  array<string, mixed>  $payload
     * @param  list<string>  $evidence SHA-256 of the files it is about
     */
    public function append(
        TestSession $session,
        User $actor,
        string $kind,
        array $payload,
        DeviceStamp $stamp = new DeviceStamp(),
        array $evidence = [],
    ): void {
        $this->writer->write($session, $actor, $kind, $payload, $stamp, $evidence);
        if (self::END === $kind) {
            $this->writer->seal($session);
        }
    }

    /**
     * Takes texts out of the record and says so in it: their digests stay, so that all of it stays proven.
     *
     * @param  TestSession  $session locked, for the caller to save
     * @param  list<string>  $texts
     */
    public function takeOut(TestSession $session, array $texts, User $by, string $reason): void
    {
        TakeOut::ofChain('session', $session->id, $session->project_id, $texts, $by, $reason, function (array $said) use (
            $session,
            $by,
        ): void {
            $this->append($session, $by, 'text_removed', $said);
        });
    }

    /**
     * @return list<StoredEvent> in order
     */
    public function events(TestSession $session): array
    {
        $rows = DB::table('session_events')->where('session_id', $session->id)->orderBy('sequence')->get();

        return array_values($rows->map(EventRow::stored(...))->all());
    }

    public function verify(TestSession $session): Verification
    {
        $events = $this->events($session);
        $found = Chain::verify(
            $session->id,
            $events,
            new Seal($session->sequence, $session->head),
            Removed::ofCycle($session->id, $events),
        );
        $fault =
            'broken' === $found->state || null === $session->sealed_sequence
                ? null
                : $this->signer->fault(
                    Signed::seal($session->id, $session->sealed_sequence, (string) $session->sealed_head),
                    (string) $session->seal_signature,
                );

        return null === $fault ? $found : Verification::broken($session->sequence, "its seal: {$fault}", $session->sequence);
    }
}
