<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * The hashes that link the events of an attempt: hash_0 is SHA-256("lucid-step/1" LF id of the attempt or cycle), each
 * further one SHA-256(hex of the one before LF bytes).
 */
final class Chain
{
    /**
     * The hash before the first event.
     */
    public static function start(string $attempt): string
    {
        return hash('sha256', "lucid-step/1\n{$attempt}");
    }

    /**
     * The hash of an event, in hex.
     *
     * @param  string  $previous the hash before it, in hex
     * @param  string  $bytes    the event's canonical bytes
     */
    public static function next(string $previous, string $bytes): string
    {
        return hash('sha256', "{$previous}\n{$bytes}");
    }

    /**
     * Checks an attempt's stored events against their hashes, their own fields and the seal.
     *
     * @param  list<StoredEvent>  $events      in order of sequence
     * @param  ?Seal  $seal        null for an unfinished attempt
     * @param  array<string, ?string>  $filesByHash the SHA-256 found for each evidence hash; null for a file that is not there
     * @param  array<string, mixed>  $removed     evidence hashes taken out with their trace, as keys
     */
    public static function verify(string $attempt, array $events, ?Seal $seal, array $filesByHash = [], array $removed = []): Verification
    {
        $hash = self::start($attempt);
        $gone = [];
        foreach ($events as $i => $stored) {
            $sequence = $i + 1;
            // What was taken out cannot be hashed again; the hash it had is part of the next event's, which is checked.
            $hash = $stored->removed ? $stored->hash : self::next($hash, $stored->bytes);
            if ($stored->removed) {
                $gone[] = "event {$sequence}";
            }
            $fault = match (true) {
                $stored->event->sequence !== $sequence => "event {$sequence} is missing",
                $stored->event->attempt !== $attempt => 'it belongs to another attempt',
                $stored->hash !== $hash => 'its bytes do not fit its hash',
                !$stored->removed && $stored->bytes !== self::bytesOf($stored->event) => 'its fields do not fit its bytes',
                default => null,
            };
            if (null !== $fault) {
                return Verification::broken($sequence, $fault);
            }
            foreach ($stored->event->evidence as $file) {
                if (isset($removed[$file])) {
                    $gone[] = $file;
                } elseif (\array_key_exists($file, $filesByHash) && $filesByHash[$file] !== $file) {
                    return Verification::broken(
                        $sequence,
                        null === $filesByHash[$file] ? "its file {$file} is not there" : "its file {$file} has other content",
                    );
                }
            }
        }
        if (null === $seal) {
            return Verification::open(\count($events), $hash, $gone);
        }
        if (\count($events) < $seal->sequence) {
            return Verification::broken(
                \count($events) + 1,
                \sprintf('the tail is missing: %d of %d events are there', \count($events), $seal->sequence),
            );
        }
        $last = $events[$seal->sequence - 1] ?? null;
        $sealed = $last === null ? self::start($attempt) : $last->hash;

        return $sealed === $seal->head
            ? Verification::whole(\count($events), $hash, $gone)
            : Verification::broken($seal->sequence, 'it is not the event that was sealed');
    }

    private static function bytesOf(Event $event): ?string
    {
        try {
            return $event->bytes();
        } catch (NotCanonical) {
            return null;
        }
    }
}
