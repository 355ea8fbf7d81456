# Where mail comes in: an SMTP server that keeps each mail in the database before it says it has taken it. What is
# already known, because a sender could not hear that it was taken, is known by its content. Whoever connects and says
# nothing costs a sleeping thread, and is sent away soon.
require_relative "../../config/boot"
require "midi-smtp-server"

class Entrance < MidiSmtpServer::Smtpd
  MOST_SESSIONS = 300
  MOST_OF_A_PEER = 30
  FIRST_COMMAND_S = 10
  COMMAND_S = 30

  def initialize(**settings)
    @open = {}
    @lock = Mutex.new
    super(
      max_processings: MOST_SESSIONS, max_connections: MOST_SESSIONS, io_cmd_timeout: COMMAND_S, io_wait_available: 1,
      tls_mode: :TLS_FORBIDDEN, auth_mode: :AUTH_FORBIDDEN, logger_severity: 3, **settings
    )
  end

  def on_connect_event(ctx)
    peer = ctx[:server][:remote_ip]
    @lock.synchronize do
      if @open.count { |_, (of, _)| of == peer } >= MOST_OF_A_PEER
        raise MidiSmtpServer::Smtpd421Exception, "Too many connections of yours"
      end

      @open[ctx.object_id] = [peer, Clock.machine, Thread.current]
    end
  end

  def on_disconnect_event(ctx) = @lock.synchronize { @open.delete(ctx.object_id) }

  # From now on there is the time any command has.
  def on_helo_event(ctx, _helo) = @lock.synchronize { @open[ctx.object_id]&.[]=(2, nil) }

  def on_rcpt_to_event(_ctx, rcpt_to)
    raise MidiSmtpServer::Smtpd550Exception unless rcpt_to.delete("<>").casecmp?(Settings.mail_from)
  end

  def on_message_data_receiving_event(ctx)
    raise MidiSmtpServer::Smtpd552Exception if ctx[:message][:data].bytesize > UseCases::IncomingMails::MOST_BYTES
  end

  def on_message_data_event(ctx)
    UseCases::IncomingMails.new.keep(sender: ctx[:envelope][:from].to_s.delete("<>"), source: ctx[:message][:data])
  rescue ActiveRecord::ActiveRecordError
    raise MidiSmtpServer::Smtpd451Exception # the sender tries again later
  end

  # Sends away whoever has not said anything yet. Their thread does nothing but wait.
  def send_away_silent
    late = @lock.synchronize do
      @open.values.filter_map { |_, since, thread| thread if thread && Clock.machine - since > FIRST_COMMAND_S }
    end
    late.each { |thread| thread.raise(MidiSmtpServer::SmtpdIOTimeoutException) }
  end
end

# Whether somebody who connects gets a greeting.
def greets?(host)
  Socket.tcp(host, Settings.entrance_port, connect_timeout: 5) do |socket|
    socket.wait_readable(10) && socket.gets.to_s.match?(/\A[24]/)
  end
rescue SystemCallError
  false
end

heartbeat = Heartbeat.new(Settings.beats)
entrance = Entrance.new(ports: Settings.entrance_port.to_s, hosts: Settings.bind)
entrance.start
stop = Queue.new
%w[INT TERM].each { |signal| trap(signal) { stop << true } }
reachable_at = (Settings.bind == "0.0.0.0") ? "127.0.0.1" : Settings.bind
Thread.new do
  loop do
    entrance.send_away_silent
    sleep 1
  end
end
Thread.new do
  loop do
    heartbeat.beat("entrance.greeting") if greets?(reachable_at)
    sleep 10
  end
end
stop.pop
entrance.stop
