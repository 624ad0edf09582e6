<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use LucidStep\Core\Casebook\Step as CaseStep;

/**
 * A step of a version of a case or of a routine.
 *
 * @property ?string $case_version_id
 * @property ?string $routine_version_id
 * @property ?string $routine_id
 * @property int     $position
 * @property string  $action
 * @property string  $data
 * @property string  $expected
 * @property array<string, string> $values
 * @property list<array{sha256: string, name: string}> $files
 */
final class Step extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['values' => 'array', 'files' => 'array'];

    public function toCore(): CaseStep
    {
        return CaseStep::fromArray([
            'action' => $this->action,
            'data' => $this->data,
            'expected' => $this->expected,
            'files' => $this->files,
            'routine' => $this->routine_id,
            'values' => $this->values,
        ]);
    }
}
