# Where mail comes in: an SMTP server that keeps each mail in the database before it says it has taken it. What is already
# known, because a sender could not hear that it was taken, is known by its content.
require_relative "../../config/boot"
require "midi-smtp-server"

class Entrance < MidiSmtpServer::Smtpd
  def on_rcpt_to_event(_ctx, rcpt_to)
    raise MidiSmtpServer::Smtpd550Exception unless rcpt_to.delete("<>").casecmp?(Settings.mail_from)
  end

  def on_message_data_event(ctx)
    raise MidiSmtpServer::Smtpd552Exception if ctx[:message][:bytesize].to_i > UseCases::IncomingMails::MOST_BYTES * 2

    UseCases::IncomingMails.new.keep(sender: ctx[:envelope][:from].to_s.delete("<>"), source: ctx[:message][:data])
  rescue ActiveRecord::ActiveRecordError
    raise MidiSmtpServer::Smtpd451Exception # the sender tries again later
  end
end

entrance = Entrance.new(ports: Settings.entrance_port.to_s, hosts: Settings.bind, max_processings: 4, tls_mode: :TLS_FORBIDDEN, auth_mode: :AUTH_FORBIDDEN, logger_severity: 3)
entrance.start
stop = Queue.new
%w[INT TERM].each { |signal| trap(signal) { stop << true } }
stop.pop
entrance.stop
