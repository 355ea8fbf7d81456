module Api
  # Refuses paths that can be written in a plainer way, before anything else looks at them: with empty segments, with
  # dots for a folder, with escapes of what needs none. So whatever counts, limits or answers by path reads the same.
  class PlainPath
    ODD = %r{
      //|                        # an empty segment
      /\.{1,2}(?:/|\z)|          # this folder, or the one above
      \\|
      %(?:2[DEFdef]|5[CcFf]|7[Ee]|3[0-9]|[46][1-9A-Fa-f]|[57][0-9Aa])  # escapes of - . / \ _ ~ digits and letters
    }x

    def initialize(app) = @app = app

    def call(env)
      return @app.call(env) unless env["PATH_INFO"].b.match?(ODD)

      Problem.response(400, "path", "This address is not written as addresses here are.")
    end
  end
end
