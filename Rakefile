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

desc "Says what the database cannot do that is needed"
task("db:check") do
  packet = ActiveRecord::Base.connection.select_value("select @@max_allowed_packet")
  if packet < 64 * 1024 * 1024
    puts "The database takes statements of #{packet / 1_048_576} MB at most; set its max_allowed_packet to 64M, or " \
      "large calendars and mails cannot be kept."
    exit 1
  end
end

desc "Fills an empty database with the demo"
task(:demo) do
  require_relative "demo/load"
  Demo.load_once
end
