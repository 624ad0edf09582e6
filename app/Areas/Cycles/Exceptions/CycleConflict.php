<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Exceptions;

use LucidStep\App\Models\Cycle;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Planning\CycleState;

/**
 * What a cycle does not allow in the state it is in.
 */
final class CycleConflict extends Conflict
{
    /**
     * @param  string  $so what cannot be done with its entries, such as "; its entries cannot be walked"
     */
    public static function notReleased(CycleState $state, string $so = ''): self
    {
        return new self('cycle-not-released', "The cycle is {$state->label()}{$so}.");
    }

    public static function closed(Cycle $cycle): self
    {
        return new self('cycle-closed', "“{$cycle->name}” is {$cycle->state->label()}. Reopen it to change it.");
    }

    public static function cannotBecome(CycleState $from, CycleState $to): self
    {
        return new self(
            'cannot-go-there',
            CycleState::Released === $to && CycleState::Draft === $from
                ? 'This project reviews cycles before they are released. Ask for a review.'
                : "A cycle that is {$from->label()} cannot become {$to->label()}.",
        );
    }

    public static function signedOffTooEarly(): self
    {
        return new self('not-released', 'A cycle is signed off once it was released.');
    }

    public static function isEmpty(): self
    {
        return new self('empty-cycle', 'There is no entry in it yet. Add what is to be walked first.');
    }

    /**
     * @param  array<string, string>  $errors what is wrong, by the key of the case
     */
    public static function cannotBeWalked(array $errors): self
    {
        $some = \array_slice($errors, 0, 3);
        $more = \count($errors) - \count($some);

        return new self(
            'cannot-be-walked',
            (1 === \count($errors) ? 'A case in it' : \sprintf('%d cases in it', \count($errors))) .
                ' cannot be walked. ' .
                implode(' ', array_map(static fn(string $key, string $error): string => "{$key}: {$error}", array_keys($some), $some)) .
                (0 === $more ? '' : " And {$more} more.") .
                ' Mend the text and take its new version, or take the entry out.',
            ['cases' => array_keys($errors)],
        );
    }

    public static function adding(): self
    {
        return new self('adding', 'Entries are being added right now. Wait until that is done, or stop it.');
    }

    public static function nothingIsAdded(): self
    {
        return new self('not-running', 'It is not running any more.');
    }

    public static function ownReview(): self
    {
        return new self('own-review', 'Somebody else reviews what you planned.');
    }

    public static function wasWalked(): self
    {
        return new self('walked', 'It has been walked already and cannot become a draft again. Close it, or abandon it with a reason.');
    }

    /**
     * @param  ?string  $how what was done to the plan last and by whom
     */
    public static function changedSince(?string $how, int $revision): self
    {
        $how = null === $how ? '' : " by {$how}";

        return new self(
            'changed-since',
            "The plan was changed since you opened it{$how}. What you typed is still here: look at the new state, then save again.",
            ['revision' => $revision],
            412,
        );
    }

    public static function orderChanged(): self
    {
        return new self('order-changed', 'The order was changed again since. Move the entries by hand.');
    }

    /**
     * @param  bool  $failed whether the entry failed or is blocked
     */
    public static function nothingToStop(bool $failed): self
    {
        return new self(
            'nothing-to-stop',
            $failed ? 'Nothing that is still open needs the pass of this entry.' : 'Only a failed or blocked entry stops others.',
        );
    }
}
