require_relative "config/boot"
run Api::App.build
