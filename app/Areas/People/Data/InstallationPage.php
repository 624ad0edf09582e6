<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * What owners look after: all projects and all people of the installation.
 */
#[OA\Schema(description: 'What owners look after: all projects and all people of the installation.')]
final readonly class InstallationPage
{
    /**
     * @param  list<InstallationProject>  $projects by name
     * @param  list<InstallationPerson>  $people by name
     * @param  list<DeletedProject>  $deleted the newest first
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: InstallationProject::class))] public array $projects,
        #[OA\Property(items: new OA\Items(ref: InstallationPerson::class))] public array $people,
        #[OA\Property(items: new OA\Items(ref: DeletedProject::class))] public array $deleted,
        #[OA\Property] public InstallationServices $services,
    ) {}
}
