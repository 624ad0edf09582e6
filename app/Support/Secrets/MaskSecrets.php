<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Secrets;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Round;
use LucidStep\Core\Data\Mask;

/**
 * Hides the secret values that an attempt is walked with in what a person writes there, before it is kept: so they
 * stand in no note, no event and no defect.
 */
final class MaskSecrets
{
    /**
     * @param  array<string, mixed>  $fields
     *
     * @return array<string, mixed> the same, every text masked
     */
    public static function hide(?Attempt $attempt, array $fields): array
    {
        $mask = null === $attempt ? null : self::of($attempt);

        return null === $mask ? $fields : array_map(static fn(mixed $v): mixed => \is_string($v) ? $mask->text($v) : $v, $fields);
    }

    /**
     * @return ?Mask null when nothing it is walked with is secret
     */
    public static function of(Attempt $attempt): ?Mask
    {
        if (true !== ($attempt->snapshot['secret'] ?? false)) {
            return null;
        }
        $values = [];
        foreach (Round::query()->where('attempt_id', $attempt->id)->get() as $round) {
            [$all, $secret] = RoundValues::of($round->data_row ?? [], false);
            array_push($values, ...array_values(array_intersect_key($all, array_flip($secret))));
        }

        return new Mask($values);
    }
}
