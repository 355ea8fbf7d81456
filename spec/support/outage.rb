# The server as it is without a connection: whoever asks is cut off without a word.
class Outage
  class << self
    attr_accessor :on
  end

  def initialize(app) = @app = app

  def call(env)
    return @app.call(env) unless Outage.on

    env["rack.hijack"].call.close
    [500, {}, []]
  end
end
