<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Membership;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Access\Role;

/**
 * Lets somebody be told of everything that becomes of a defect, or no more.
 */
final readonly class WatchDefect
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @throws ValidationException when the person has no part in the project, or sees no defects
     */
    public function __invoke(Defect $defect, string $person, bool $watches): void
    {
        $row = ['defect_id' => $defect->id, 'user_id' => $person];
        if (!$watches) {
            DB::table('defect_watchers')->where($row)->delete();
        } else {
            $sees = Membership::query()
                ->where('project_id', $defect->project_id)
                ->where('user_id', $person)
                ->where('role', '<>', Role::Reader)
                ->exists();
            if (!$sees) {
                throw ValidationException::withMessages(['person_id' => 'Nobody like this works on defects in the project.']);
            }
            DB::table('defect_watchers')->insertOrIgnore([...$row, 'created_at' => Carbon::now()->format('Y-m-d H:i:s.uP')]);
        }
        ($this->announce)($defect->project_id, 'defect', $defect->id);
    }
}
