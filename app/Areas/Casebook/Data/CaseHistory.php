<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * All that happened to a case, newest first, and its versions.
 */
#[OA\Schema(description: 'All that happened to a case, newest first, and its versions.')]
final readonly class CaseHistory
{
    /**
     * @param  list<LogLine>  $log
     * @param  list<VersionLine>  $versions
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: LogLine::class))] public array $log,
        #[OA\Property(items: new OA\Items(ref: VersionLine::class))] public array $versions,
    ) {}
}
