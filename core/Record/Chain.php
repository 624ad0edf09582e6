<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * The hashes that link the events of an attempt: hash_0 is SHA-256("lucid-step/2" LF id of the attempt or cycle), each
 * further one SHA-256(hex of the one before LF hex of SHA-256(bytes)).
 */
final class Chain
{
    /** What ends an attempt, and seals it. */
    public const ENDS = ['finished', 'abandoned'];

    /** What may follow the seal: none of it changes what was found when it was found. */
    private const AFTER = ['time_corrected', 'evidence_redacted', 'retest_asked', 'defect_linked', 'late_act_accepted'];

    /**
     * The hash before the first event.
     */
    public static function start(string $attempt): string
    {
        return hash('sha256', "lucid-step/2\n{$attempt}");
    }

    /**
     * The hash of an event, in hex.
     *
     * @param  string  $previous the hash before it, in hex
     * @param  string  $bytes    the event's canonical bytes
     */
    public static function next(string $previous, string $bytes): string
    {
        return hash('sha256', "{$previous}\n" . hash('sha256', $bytes));
    }

    /**
     * Checks stored events against their hashes, their own fields and the texts beside them.
     *
     * @param  list<StoredEvent>  $events in order of sequence
     * @param  ?Seal  $tail how many there are and the hash of the last, as it is kept elsewhere
     */
    public static function verify(string $id, array $events, ?Seal $tail, Removed $removed = new Removed()): Verification
    {
        $hash = self::start($id);
        $gone = [];
        foreach ($events as $i => $stored) {
            $sequence = $i + 1;
            $hash = self::next($hash, $stored->bytes);
            [$fault, $out] = match (true) {
                $stored->event->sequence !== $sequence => ["event {$sequence} is missing", []],
                $stored->event->attempt !== $id => ['it belongs to another attempt', []],
                $stored->hash !== $hash => ['its bytes do not fit its hash', []],
                default => self::fields($stored, $removed),
            };
            if (null !== $fault) {
                return Verification::broken($sequence, $fault);
            }
            array_push($gone, ...[] === $out ? [] : ["event {$sequence}"]);
        }
        if (null !== $tail && \count($events) < $tail->sequence) {
            return Verification::broken(
                \count($events) + 1,
                \sprintf('the tail is missing: %d of %d events are there', \count($events), $tail->sequence),
            );
        }
        if (null !== $tail && (\count($events) > $tail->sequence || $hash !== $tail->head)) {
            return Verification::broken(\count($events), 'it is not the event that is kept as the last');
        }

        return Verification::whole(\count($events), $hash, $gone);
    }

    /**
     * Checks the seal of an attempt whose events fit.
     *
     * @param  list<StoredEvent>  $events
     * @param  ?Seal  $seal null where none is kept
     */
    public static function verifySeal(array $events, ?Seal $seal): ?Verification
    {
        $ended = null;
        foreach ($events as $stored) {
            $event = $stored->event;
            $late = true === ($event->payload['arrived_late'] ?? false);
            if (null === $ended && \in_array($event->kind, self::ENDS, true)) {
                $ended = $stored;
            } elseif (null !== $ended && !$late && !\in_array($event->kind, self::AFTER, true)) {
                return Verification::broken($event->sequence, "{$event->kind} cannot follow the seal");
            }
        }
        if (null === $ended) {
            return null === $seal ? null : Verification::broken(max(1, $seal->sequence), 'it is sealed, and no event ends it');
        }
        if (null === $seal) {
            return Verification::broken($ended->event->sequence, 'it ends here, and the seal is not there');
        }

        return $seal->sequence === $ended->event->sequence && $seal->head === $ended->hash
            ? null
            : Verification::broken($ended->event->sequence, 'it is not the event that was sealed');
    }

    /**
     * The first file that an event names and that is not what it was.
     *
     * @param  list<StoredEvent>  $events
     * @param  array<string, ?string>  $found the SHA-256 found for each, null for a file that is not there
     */
    public static function verifyFiles(array $events, array $found, Removed $removed): ?Verification
    {
        foreach ($events as $stored) {
            foreach ($stored->event->evidence as $file) {
                $is = $found[$file] ?? null;
                if (!isset($removed->files[$file]) && $is !== $file) {
                    return Verification::broken(
                        $stored->event->sequence,
                        null === $is ? "its file {$file} is not there" : "its file {$file} has other content",
                    );
                }
            }
        }

        return null;
    }

    /**
     * @return array{?string, list<string>} what does not fit, and the paths of removed texts
     */
    private static function fields(StoredEvent $stored, Removed $removed): array
    {
        $bytes = json_decode($stored->bytes, true);
        $payload = \is_array($bytes) ? $bytes['payload'] ?? null : null;
        if (!\is_array($payload)) {
            return ['its bytes cannot be read', []];
        }
        $said = FreeText::digests($payload);
        $there = $stored->event->digests();
        $out = array_diff_key($said, $stored->event->salts);
        foreach ($out as $path => $digest) {
            if (!isset($removed->texts[$digest])) {
                return ["its text at {$path} is gone, and nobody removed it", []];
            }
        }
        foreach (array_diff_key($said, $out) as $path => $digest) {
            if (($there[$path] ?? null) !== $digest) {
                return ["its text at {$path} is not what was recorded", []];
            }
        }
        try {
            $same = $stored->event->bytes($out) === $stored->bytes;
        } catch (NotCanonical) {
            $same = false;
        }

        return [$same ? null : 'its fields do not fit its bytes', array_keys($out)];
    }
}
