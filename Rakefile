require_relative "config/database"

# Active Record's own database tasks, without Rails.
include ActiveRecord::Tasks
DatabaseTasks.env = Settings.env
DatabaseTasks.root = Settings::ROOT
DatabaseTasks.db_dir = File.join(Settings::ROOT, "db")
DatabaseTasks.migrations_paths = [File.join(Settings::ROOT, "db/migrate")]
DatabaseTasks.database_configuration = {Settings.env => Settings.database}
DatabaseTasks.seed_loader = Class.new { def load_seed = nil }.new

task(:environment) {}
load "active_record/railties/databases.rake"
