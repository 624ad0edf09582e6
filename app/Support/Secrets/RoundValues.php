<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Secrets;

use Illuminate\Support\Facades\Crypt;
use LucidStep\App\Models\Round;
use LucidStep\Core\Data\Mask;

/**
 * The values of a round's data row. Secret ones are kept encrypted and told only to whoever walks.
 */
final class RoundValues
{
    /**
     * @param  array<array-key, mixed>  $row   as it is stored
     * @param  bool  $clear whether secret values are told
     *
     * @return array{array<string, string>, list<string>} values by name in lower case, and the names of secret ones that are not told
     */
    public static function of(array $row, bool $clear): array
    {
        $values = $secrets = [];
        foreach ($row as $name => $value) {
            $key = mb_strtolower((string) $name);
            if (\is_array($value)) {
                $cell = (string) ($value['secret'] ?? '');
                $values[$key] = '' === $cell ? '' : Crypt::decryptString($cell);
                if (!$clear) {
                    $secrets[] = $key;
                }
            } else {
                $values[$key] = (string) $value;
            }
        }

        return [$values, $secrets];
    }

    /**
     * @param  list<string>  $columns in their order
     *
     * @return array<string, string> the row by column, secrets masked
     */
    public static function maskedRow(?Round $round, array $columns): array
    {
        return array_column(self::masked($round->data_row ?? [], $columns), 1, 0);
    }

    /**
     * @param  array<array-key, mixed>  $row as it is stored
     * @param  list<string>  $columns in their order, which a stored row does not keep
     *
     * @return list<array{string, string}> names and values, secret ones masked
     */
    public static function masked(array $row, array $columns = []): array
    {
        $names = array_map(strval(...), array_keys($row));
        $masked = [];
        foreach (array_unique([...array_intersect($columns, $names), ...$names]) as $name) {
            $value = $row[$name];
            $masked[] = [$name, \is_array($value) ? ('' === ($value['secret'] ?? '') ? '' : Mask::DOTS) : (string) $value];
        }

        return $masked;
    }

    /**
     * What hides the round's secret values in text that leaves the walk.
     */
    public static function mask(?Round $round): Mask
    {
        [$values, $secrets] = self::of($round->data_row ?? [], false);

        return new Mask(array_values(array_intersect_key($values, array_flip($secrets))));
    }
}
