<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Exceptions;

use LucidStep\App\Areas\Cycles\Data\Reason;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Execution\HeldReason;
use LucidStep\Core\Verdict\AttemptState;

/**
 * What an entry does not allow as it stands.
 */
final class EntryConflict extends Conflict
{
    /**
     * @param  list<HeldReason>  $reasons
     * @param  string  $zone that of the project
     */
    public static function held(array $reasons, string $zone): self
    {
        $words = implode(', and ', array_map(static fn(HeldReason $r): string => $r->words(new \DateTimeZone($zone)), $reasons));

        return new self('held', "This entry is held: {$words}.", ['reasons' => array_map(Reason::from(...), $reasons)]);
    }

    /**
     * @param  Attempt  $open with its tester loaded
     */
    public static function walkedByAnother(Attempt $open): self
    {
        return new self('walked-by-another', "{$open->tester->name} is walking this entry. Take it over, or choose another.", [
            'attempt_id' => $open->id,
            'tester' => $open->tester->name,
        ]);
    }

    public static function walkedByYou(): self
    {
        return new self('walked-by-you', 'You are walking it; finish that attempt.');
    }

    public static function noRetestWhileWalked(): self
    {
        return new self('walked-now', 'This entry is being walked right now. Ask again when that attempt is finished.');
    }

    /**
     * @param  Attempt  $open with its tester loaded
     */
    public static function noVersionWhileWalked(Attempt $open): self
    {
        return new self(
            'walked-now',
            "{$open->tester->name} is walking this entry. They can take the new version from where they are, or it is taken when " .
                'they have finished.',
        );
    }

    public static function tooLarge(string $why): self
    {
        return new self('too-large-to-walk', $why);
    }

    public static function nothingToRetest(): self
    {
        return new self('nothing-to-retest', 'Nobody has finished this entry yet.');
    }

    public static function textHasErrors(int $version, string $error): self
    {
        return new self('cannot-be-walked', "Version {$version} cannot be walked. {$error} Mend the text first.");
    }

    public static function newestAlready(): self
    {
        return new self('newest-already', 'This entry has the newest version already.');
    }

    public static function attemptEnded(AttemptState $state): self
    {
        return new self('attempt-ended', "The attempt is {$state->value}. Start a new one.");
    }
}
