<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use LucidStep\Core\Data\Column;
use LucidStep\Core\Data\DataTable as CoreTable;

/**
 * A data table. The cells of secret columns are encrypted where they are kept.
 *
 * @property string  $project_id
 * @property string  $name
 * @property list<array{name: string, secret: bool}> $columns
 * @property int     $revision
 * @property ?Carbon $binned_at
 * @property Carbon  $updated_at
 * @property Collection<int, DataRow> $rows
 */
final class DataTable extends Record
{
    protected $table = 'data_tables';

    /** @var array<string, string> */
    protected $casts = ['columns' => 'array', 'binned_at' => 'datetime'];

    /**
     * @return HasMany<DataRow, $this>
     */
    public function rows(): HasMany
    {
        $all = $this->hasMany(DataRow::class, 'table_id');
        $all->orderBy('position');

        return $all;
    }

    /**
     * @return list<Column>
     */
    public function coreColumns(): array
    {
        return array_map(static fn(array $c): Column => new Column($c['name'], $c['secret']), $this->columns);
    }

    /**
     * With all its values in the clear.
     */
    public function toCore(): CoreTable
    {
        return CoreTable::of(
            $this->coreColumns(),
            array_values($this->rows->map(fn(DataRow $r): array => $r->clear($this->columns))->all()),
        );
    }
}
