<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * A file of cases on its way in.
 */
#[OA\Schema(description: 'A file of cases on its way in.')]
final readonly class ImportState
{
    /**
     * @param  list<string>  $header
     * @param  list<list<string>>  $samples
     * @param  list<?string>  $mapping
     * @param  list<string>  $new_types
     * @param  list<string>  $left_out
     * @param  list<ImportWord>  $words
     * @param  list<ImportRow>  $report
     * @param  list<string>  $targets
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property(enum: ['reading', 'ready', 'running', 'done', 'cancelled', 'failed', 'undone'])] public string $state,
        #[OA\Property] public string $format,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $header,
        #[OA\Property(items: new OA\Items(type: 'array', items: new OA\Items(type: 'string')))] public array $samples,
        #[OA\Property(items: new OA\Items(type: 'string', nullable: true))] public array $mapping,
        #[OA\Property(enum: ['step', 'case'])] public string $layout,
        #[OA\Property] public string $charset,
        #[OA\Property] public string $separator,
        #[OA\Property] public int $rows,
        #[OA\Property] public int $creates,
        #[OA\Property] public int $changes,
        #[OA\Property] public int $refuses,
        #[OA\Property] public int $same,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $new_types,
        #[
            OA\Property(
                description: 'What the file holds beside its cases and is not brought in, a sentence each.',
                items: new OA\Items(type: 'string'),
            ),
        ]
        public array $left_out,
        #[OA\Property(items: new OA\Items(ref: ImportWord::class))] public array $words,
        #[OA\Property] public int $done,
        #[OA\Property] public int $total,
        #[OA\Property] public string $problem,
        #[OA\Property(items: new OA\Items(ref: ImportRow::class))] public array $report,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $targets,
        #[OA\Property] public bool $undoable,
        #[
            OA\Property(description: 'Why nothing goes on, where nothing works in the background; empty otherwise'),
        ]
        public string $standstill,
    ) {}
}
