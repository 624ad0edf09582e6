<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Execution\AttemptSize;

/**
 * Why a case cannot be planned, by whichever way it is picked: anew, or once more with its cycle.
 */
final class NotPlannable
{
    /**
     * What stands against it as it is in the casebook.
     *
     * @return ?array{string, string} said of one case, and of several; null: nothing
     */
    public static function asItIs(string $state, bool $binned, bool $template, int $steps, bool $approvedOnly, bool $approved): ?array
    {
        return match (true) {
            $binned, CaseState::Retired->value === $state => ['It is retired.', 'their case is retired or in the bin'],
            $template => ['It is a template.', 'their case is a template'],
            0 === $steps => ['It has no steps yet.', 'their case has no steps'],
            $approvedOnly && !$approved => ['It is not approved, and only approved cases may enter cycles.', 'their case is not approved'],
            default => null,
        };
    }

    /**
     * What stands against walking its text with these rows.
     *
     * @param  list<string>  $errors in its text
     * @param  ?int  $rows so many of its table are chosen; null: it has no table
     * @param  int  $there so many rows its table has
     *
     * @return ?array{string, string} as {@see asItIs()}
     */
    public static function asWalked(array $errors, int $steps, ?int $rows, int $there): ?array
    {
        $tooLarge = AttemptSize::tooLarge($steps, max(1, $rows ?? 0));

        return match (true) {
            0 === $rows => [
                0 === $there ? 'Its data table has no rows.' : 'None of its data rows is chosen.',
                'their data rows are not there any more',
            ],
            [] !== $errors => [$errors[0], 'their text cannot be walked'],
            null !== $tooLarge => [$tooLarge, 'walking them would be too long'],
            default => null,
        };
    }
}
