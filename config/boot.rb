require_relative "clock"
require_relative "settings"
require_relative "database"
require_relative "loader"
require "bcrypt"
require "active_model"

Core::MailAddress.domain = Settings.mail_domain
LOADER.on_load("Mailing::Html") { |html, _| html.house = Settings.organisation }
