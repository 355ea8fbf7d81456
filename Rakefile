require_relative "config/database"

# Active Record's own database tasks, without Rails.
tasks = ActiveRecord::Tasks::DatabaseTasks
tasks.env = Settings.env
tasks.root = Settings::ROOT
tasks.db_dir = File.join(Settings::ROOT, "db")
tasks.migrations_paths = [File.join(Settings::ROOT, "db/migrate")]
tasks.database_configuration = {Settings.env => Settings.database}
tasks.seed_loader = Class.new { def load_seed = nil }.new

task(:environment) {}
load "active_record/railties/databases.rake"

desc "Fills an empty database with the demo"
task(:demo) { require_relative "demo/load" }
