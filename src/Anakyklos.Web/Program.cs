using Anakyklos.Web.CommandLine;

return await WorkshopCommands.Run(args);

/// <summary>The entry point, named so that tests can start the application.</summary>
public partial class Program;
