require_relative "../../config/boot"

$VERBOSE = nil # the mail library writes each line of a mail that it cannot read to the log
worker = Worker.new
%w[INT TERM].each { |signal| trap(signal) { worker.stop } }
worker.run
