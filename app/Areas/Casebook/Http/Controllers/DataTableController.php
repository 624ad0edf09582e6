<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Actions\SaveTable;
use LucidStep\App\Areas\Casebook\Data\TableDetail;
use LucidStep\App\Areas\Casebook\Data\TableLine;
use LucidStep\App\Areas\Casebook\Http\Requests\TableRequest;
use LucidStep\App\Areas\Casebook\Queries\RoutineAndTableQueries;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Data\Done;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Data\Column;
use LucidStep\Core\Data\DataTable as CoreTable;
use LucidStep\Core\Exchange\Unreadable;

/**
 * Data tables.
 */
final class DataTableController
{
    public function __construct(private readonly SaveTable $save, private readonly RoutineAndTableQueries $shelf) {}

    #[Get('/projects/{project}/data-tables', 'The data tables of a project', TableLine::class, true, ['bin' => 'yes: those in the bin'])]
    public function index(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->shelf->tables($project, 'yes' === $request->query->getString('bin')));
    }

    #[Get('/data-tables/{table}', 'A data table with its rows, and where it is used', TableDetail::class)]
    public function show(DataTable $table): JsonResponse
    {
        return (new JsonResponse($this->shelf->table($table, Gate::allows('writeCases', $this->project($table)))))->setEtag(
            (string) $table->revision,
        );
    }

    #[Post('/projects/{project}/data-tables', 'Make a data table, typed or from a text', TableDetail::class, TableRequest::class, 201)]
    #[Needs(Permission::WriteCases)]
    public function store(TableRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);

        return new JsonResponse($this->shelf->table($this->save->save($project, null, $this->input($request), null), true), 201);
    }

    #[Put('/data-tables/{table}', 'Change a data table', TableDetail::class, TableRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function update(TableRequest $request, DataTable $table): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($table));

        return new JsonResponse(
            $this->shelf->table(
                $this->save->save($this->project($table), $table, $this->input($request), $request->integer('revision') ?: null),
                true,
            ),
        );
    }

    #[Delete('/data-tables/{table}', 'Bin a data table that is used nowhere', Done::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function destroy(StampRequest $request, DataTable $table): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($table));
        $this->save->bin($table);

        return new JsonResponse(new Done($table->id, $table->revision));
    }

    #[Post('/data-tables/{table}/restorations', 'Take a data table out of the bin', Done::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function restore(StampRequest $request, DataTable $table): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($table));
        $this->save->restore($table);

        return new JsonResponse(new Done($table->id, $table->revision));
    }

    /**
     * @return array{name: string, columns: list<array{name?: mixed, secret?: mixed}>, rows: list<array{id?: mixed, cells?: mixed}>}
     */
    private function input(TableRequest $request): array
    {
        $text = $request->validated('text');
        if (\is_string($text) && '' !== $text) {
            try {
                $core = CoreTable::fromText($text);
            } catch (Unreadable $e) {
                throw ValidationException::withMessages([
                    'text' => array_map(
                        static fn($error): string => ($error->row > 1 ? "Row {$error->row}: " : '') . $error->message,
                        \array_slice($e->errors, 0, 20),
                    ),
                ]);
            }

            return [
                'name' => $request->string('name')->toString(),
                'columns' => array_map(static fn(Column $c): array => ['name' => $c->name, 'secret' => false], $core->columns),
                'rows' => array_map(static fn(array $cells): array => ['cells' => $cells], $core->rows),
            ];
        }

        return [
            'name' => $request->string('name')->toString(),
            'columns' => array_values((array) $request->validated('columns')),
            'rows' => array_values((array) $request->validated('rows')),
        ];
    }

    private function project(DataTable $table): Project
    {
        return ProjectLookup::find($table->project_id);
    }
}
