require_relative "../../config/boot"

worker = Worker.new
%w[INT TERM].each { |signal| trap(signal) { worker.stop } }
worker.run
