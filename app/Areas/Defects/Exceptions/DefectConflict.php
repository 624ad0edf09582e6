<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Exceptions;

use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Defects\DefectState;

/**
 * What a defect does not allow as it stands.
 */
final class DefectConflict extends Conflict
{
    /**
     * @param  array<string, ?string>  $now what each field is by now
     */
    public static function editedMeanwhile(array $now): self
    {
        return new self(
            'saved-meanwhile',
            'Somebody changed the same meanwhile. What you typed is kept: look at theirs, and save again what is to stand.',
            ['now' => $now],
            412,
        );
    }

    public static function movedMeanwhile(DefectState $now): self
    {
        $word = str_replace('_', ' ', $now->value);

        return new self('state-changed', "Somebody moved it meanwhile: it is {$word} now.", ['state' => $now->value], 412);
    }

    /**
     * What was said stands once others may have read it.
     */
    public static function stands(): self
    {
        return new self('stands', 'This can be changed for a quarter of an hour; now it stands. Add what is missing.');
    }

    public static function othersWords(): self
    {
        return new self('not-yours', 'Only who wrote this changes it.');
    }

    public static function othersFile(): self
    {
        return new self('not-yours', 'Only who added this takes it off.');
    }

    public static function noTracker(): self
    {
        return new self('no-tracker', 'The project files into no tracker. An admin sets one up in Setup, Defects.');
    }

    public static function filedFromThere(string $key): self
    {
        return new self('filed-already', "{$key} was filed from this line already.", ['key' => $key]);
    }

    public static function relatedToItself(): self
    {
        return new self('related-to-itself', 'It cannot stand to itself.');
    }

    /**
     * @param  string  $parent key of the one it stands under
     */
    public static function hasParent(string $parent): self
    {
        return new self('has-parent', "It stands under {$parent} already. Take that away first.", ['parent' => $parent]);
    }

    public static function parentLoop(): self
    {
        return new self('parent-loop', 'It would stand under itself: the other one stands below it.');
    }

    /**
     * @param  list<string>  $children keys of those that are open
     */
    public static function openChildren(array $children): self
    {
        $keys = implode(', ', $children);

        return new self('open-children', "Below it are still open: {$keys}. Close it all the same?", ['children' => $children]);
    }

    public static function duplicateOfItself(): self
    {
        return new self('duplicate-loop', 'It would be a duplicate of itself: the other one leads back to this.');
    }

    public static function noSuchMove(DefectState $from, DefectState $to): self
    {
        $words = static fn(DefectState $s): string => str_replace('_', ' ', $s->value);

        return new self('no-such-move', "The defect is {$words($from)} now; it cannot become {$words($to)} from there.", [
            'state' => $from->value,
        ]);
    }
}
