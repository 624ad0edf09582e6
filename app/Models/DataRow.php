<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Facades\Crypt;

/**
 * A row of a data table.
 *
 * @property string       $table_id
 * @property int          $position
 * @property list<string> $cells in the order of the columns, those of secret columns encrypted
 */
final class DataRow extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['cells' => 'array'];

    /**
     * @param  list<array{name: string, secret: bool}>  $columns
     *
     * @return list<string>
     */
    public function clear(array $columns): array
    {
        $clear = [];
        foreach ($columns as $i => $column) {
            $cell = $this->cells[$i] ?? '';
            $clear[] = $column['secret'] && '' !== $cell ? Crypt::decryptString($cell) : $cell;
        }

        return $clear;
    }

    /**
     * @param  list<string>  $clear
     * @param  list<array{name: string, secret: bool}>  $columns
     *
     * @return list<string> as they are kept
     */
    public static function kept(array $clear, array $columns): array
    {
        $cells = [];
        foreach ($columns as $i => $column) {
            $cell = $clear[$i] ?? '';
            $cells[] = $column['secret'] && '' !== $cell ? Crypt::encryptString($cell) : $cell;
        }

        return $cells;
    }
}
