<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Http\UploadedFile;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

final class CasebookTest extends FeatureTestCase
{
    public function test_cases_come_in_from_a_file_and_stand_in_their_folders(): void
    {
        $csv = "title,folder,labels,action,data,expected\nOne,Fares / Groups,\"a, b\",Do,x,See\n,,,Do more,,See more\nTwo,Fares,,Do,,See";
        $this->import($this->world->lead(), $csv)->assertCreated()->assertJsonPath('keys', ['TST-C1', 'TST-C2']);
        $this->import($this->world->lead(), $csv)->assertCreated()->assertJsonPath('keys', ['TST-C3', 'TST-C4']);
        $folders = $this->as($this->world->person(), 'GET', '/projects/TST/folders')->assertJsonCount(2);
        self::assertSame(['Fares' => 2, 'Groups' => 2], array_column((array) $folders->json(), 'cases', 'name'));
        $this->as($this->world->person(), 'GET', '/cases/TST-C1')->assertJsonPath('folder_path', ['Fares', 'Groups'])->assertJsonPath('steps.1.action', 'Do more')->assertJsonPath('case.labels', ['a', 'b']);
    }

    public function test_a_faulty_file_writes_nothing_and_names_row_and_column(): void
    {
        $this->import($this->world->lead(), "title,priority,action,expected\nOne,high,Do,See\nTwo,urgent,Do,See")->assertUnprocessable()->assertJsonStructure(['errors' => ['row 3.priority']]);
        self::assertSame(0, TestCase::query()->count());
        $this->import($this->world->person(), "title,action,expected\nOne,Do,See")->assertForbidden();
        $this->as($this->world->lead(), 'POST', '/projects/TST/case-imports')->assertUnprocessable();
    }

    public function test_found_by_folder_and_words_page_by_page(): void
    {
        for ($i = 0; $i < 203; $i++) {
            $this->world->case(1);
        }
        $first = $this->as($this->world->person(), 'GET', '/projects/TST/cases')->assertJsonCount(200, 'items')->assertJsonPath('total', 203);
        $this->as($this->world->person(), 'GET', "/projects/TST/cases?after={$first->json('next')}")->assertJsonCount(3, 'items');
        $this->as($this->world->person(), 'GET', '/projects/TST/cases?q=case%20203')->assertJsonCount(1, 'items');
        $this->as($this->world->person(), 'GET', '/projects/TST/cases?folder='.\Illuminate\Support\Str::uuid7())->assertJsonCount(0, 'items');
        $this->as($this->world->person(), 'GET', '/projects/TST/go-to?q=tst-c19')->assertJsonPath('items.0.key', 'TST-C19');
    }

    /**
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function import(User $user, string $csv): TestResponse
    {
        $this->app?->forgetScopedInstances();

        return $this->actingAs($user)->post('/api/v1/projects/TST/case-imports', ['file' => UploadedFile::fake()->createWithContent('cases.csv', $csv)], ['Accept' => 'application/json']);
    }
}
